"""Totals of the ready-made calculations over the demo's awkward deals, worked out apart from Lumbix.

Reads the demo's records (tests/expected/records.ts prints them) from standard input and prints the expected figures:

    npx tsx tests/expected/records.ts | python3 tests/expected/calculations.py > tests/expected/calculations.json

Nothing here is shared with the application: Python's decimal, rounding half up on absolute values (half away from
zero), and plain loops. Deals with a blank price or without a currency are left out.
"""
import calendar
import datetime
import json
import sys
from decimal import Decimal, ROUND_FLOOR, ROUND_HALF_UP, getcontext

getcontext().prec = 60
MINOR = {"JPY": 0, "KWD": 3, "BHD": 3}
ISSUED = datetime.date(2026, 11, 23)
INVOICED_BEFORE = [("1000.00", None), ("250.50", "200.25")]  # gross total, payable


def rounded(value, currency):
    return value.quantize(Decimal(1).scaleb(-MINOR.get(currency, 2)), rounding=ROUND_HALF_UP)


def split(total, weights, currency):
    """Largest remainder: floor every part, then one unit each to the largest remainders, the first of equal ones."""
    unit = Decimal(1).scaleb(-MINOR.get(currency, 2))
    whole = sum(weights)
    exact = [total * weight / whole for weight in weights]
    parts = [(each / unit).to_integral_value(rounding=ROUND_FLOOR) * unit for each in exact]
    left = int(((total - sum(parts)) / unit).to_integral_value())
    order = sorted(range(len(parts)), key=lambda at: (-(exact[at] - parts[at]), at))
    for at in order[:left]:
        parts[at] += unit
    return parts


def number(value, otherwise="0"):
    return Decimal(otherwise if value is None else str(value))


def grouped(lines, key):
    groups = {}
    for line in lines:
        groups.setdefault(key(line), []).append(line)
    return groups


def tax_key(line):
    return (line["tax_category"], str(line["tax_rate"]))


def tax_by_category(lines, nets, currency):
    """Sum of the taxes, each rounded on the base of its category."""
    total = Decimal(0)
    for (_, rate), members in grouped(lines, tax_key).items():
        base = sum(nets[line["id"]] for line in members)
        total += rounded(base * Decimal(rate) / 100, currency)
    return total


def expected(deal, lines):
    currency = deal["currency"]
    cents = lambda value: rounded(value, currency)
    chosen = [line for line in lines if not line["optional"]]
    text = lambda value: format(cents(value), "f")
    net = {line["id"]: cents(number(line["quantity"]) * number(line["unit_price"]) * (1 - number(line["discount"]) / 100)) for line in lines}
    subtotal = sum((net[line["id"]] for line in chosen), Decimal(0))
    tax = tax_by_category(chosen, net, currency)
    total = subtotal + tax
    result = {}

    result["net-prices"] = {
        "list_total": text(sum((cents(number(line["quantity"]) * number(line["unit_price"])) for line in chosen), Decimal(0))),
        "subtotal": text(subtotal), "tax_total": text(tax), "total": text(total),
        "extras_total": text(sum((net[line["id"]] for line in lines if line["optional"]), Decimal(0))),
    }

    per_line = sum((cents(net[line["id"]] * number(line["tax_rate"]) / 100) for line in chosen if line["tax_category"] in ("standard", "reduced")), Decimal(0))
    result["tax-per-line"] = {"tax_total": text(per_line), "total": text(subtotal + per_line)}

    included_base = Decimal(0)
    for (_, rate), members in grouped(chosen, tax_key).items():
        gross = sum(net[line["id"]] for line in members)
        included_base += cents(gross / (1 + Decimal(rate) / 100))
    result["tax-included"] = {"subtotal": text(included_base), "tax_total": text(subtotal - included_base), "total": text(subtotal)}

    after = {}
    for line in lines:
        listed = cents(number(line["quantity"]) * number(line["unit_price"]))
        percent = cents(listed * (1 - number(line["discount"]) / 100))
        after[line["id"]] = cents(percent - min(percent, number(line["discount_amount"])))
    goods = sum((after[line["id"]] for line in chosen), Decimal(0))
    off = min(goods, cents(goods * number(deal["discount_percent"]) / 100) + number(deal["discount_amount"]))
    spread = dict(after)
    if off:
        for line, part in zip(chosen, split(off, [after[line["id"]] for line in chosen], currency)):
            spread[line["id"]] = after[line["id"]] - part
    chained = sum((spread[line["id"]] for line in chosen), Decimal(0))
    result["chained-discounts"] = {
        "goods": text(goods), "deal_discount": text(off), "subtotal": text(chained),
        "total": text(chained + tax_by_category(chosen, spread, currency)),
    }

    in_group = dict(net)
    group_off = Decimal(0)
    for members in grouped(chosen, lambda line: line["section"]).values():
        value = sum(net[line["id"]] for line in members)
        rate = Decimal("0.05") if value >= 50000 else Decimal("0.035") if value >= 20000 else Decimal("0.02") if value >= 5000 else Decimal(0)
        discount = cents(value * rate)
        group_off += discount
        if discount:
            for line, part in zip(members, split(discount, [net[line["id"]] for line in members], currency)):
                in_group[line["id"]] = net[line["id"]] - part
    result["group-discounts"] = {
        "group_discount": text(group_off), "subtotal": text(sum((in_group[line["id"]] for line in chosen), Decimal(0))),
        "total": text(subtotal - group_off + tax_by_category(chosen, in_group, currency)),
    }

    allowances = min(subtotal, cents(subtotal * number(deal["discount_percent"]) / 100) + number(deal["discount_amount"]))
    weight = sum((number(line["quantity"]) * number(line["weight"]) for line in chosen), Decimal(0))
    charges = Decimal(0)
    if weight and subtotal:
        for start, price in ((0, "18.00"), (50, "65.00"), (500, "240.00"), (2000, "640.00"), (10000, "1890.00")):
            if weight >= start:
                charges = Decimal(price)
    charges = cents(charges)
    categories = list(grouped(chosen, tax_key).items())
    bases = [sum(net[line["id"]] for line in members) for _, members in categories]
    taxable = list(bases)
    for sign, sum_of in ((-1, allowances), (1, charges)):
        if sum_of:
            taxable = [base + sign * part for base, part in zip(taxable, split(sum_of, bases, currency))]
    spread_tax = sum((cents(base * Decimal(rate) / 100) for base, ((_, rate), _) in zip(taxable, categories)), Decimal(0))
    result["allowances-and-charges"] = {
        "allowances": text(allowances), "charges": text(charges), "net_total": text(subtotal - allowances + charges),
        "tax_total": text(spread_tax), "total": text(subtotal - allowances + charges + spread_tax),
    }

    payments = split(total, [Decimal(30), Decimal(45), Decimal(25)], currency)
    deposit = cents(total * number(deal["deposit_percent"]) / 100)
    result["instalments"] = {"payments": [text(each) for each in payments], "deposit": text(deposit), "after_deposit": text(total - deposit)}

    billed = sum(Decimal(payable or gross) for gross, payable in INVOICED_BEFORE)
    result["final-invoice"] = {"prepaid": text(billed), "retention": text(cents(total / 20)), "due": text(total - billed - cents(total / 20))}

    start = datetime.date.fromisoformat(deal["wanted_by"]) if deal["wanted_by"] else ISSUED
    days = calendar.monthrange(start.year, start.month)[1]
    share = Decimal(days - start.day + 1) / Decimal(days)
    contract = yearly = first = Decimal(0)
    for line in chosen:
        months = number(line["term_months"], "12")
        periods = {"monthly": months, "yearly": months / 12}.get(line["billing"], Decimal(1))
        contract += cents(net[line["id"]] * periods)
        yearly += {"monthly": net[line["id"]] * 12, "yearly": net[line["id"]]}.get(line["billing"], Decimal(0))
        first += cents(net[line["id"]] * share) if line["billing"] == "monthly" else net[line["id"]]
    result["recurring"] = {"contract_total": text(contract), "yearly_total": text(yearly), "first_invoice": text(first)}

    heads = [line for line in chosen if not line["part_of"]]
    rolled = [net[head["id"]] + sum((net[line["id"]] for line in chosen if line["part_of"] == head["sku"]), Decimal(0)) for head in heads]
    result["bundles"] = {"rolled_up": [text(each) for each in rolled], "subtotal": text(subtotal)}

    if all(line["unit_cost"] is not None for line in chosen) and chosen:
        cost = sum((cents(number(line["quantity"]) * number(line["unit_cost"])) for line in chosen), Decimal(0))
        result["margin"] = {"cost_total": text(cost), "margin_total": text(subtotal - cost)}

    payable = total
    if currency == "CHF":
        payable = (total / Decimal("0.05")).quantize(Decimal(1), rounding=ROUND_HALF_UP) * Decimal("0.05")
    result["cash-rounding"] = {"rounding": text(payable - total), "payable": text(payable)}
    return result


records = json.load(sys.stdin)
answers = {}
for deal in records["deals"]:
    lines = [line for line in records["lineItems"] if line["deal_id"] == deal["id"]]
    if deal["currency"] is None or any(line["unit_price"] is None for line in lines):
        continue
    answers[deal["id"]] = expected(deal, lines)
json.dump(answers, sys.stdout, indent=1)
print()
