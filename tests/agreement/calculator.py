"""What quotes and invoices come to, worked out apart from Lumbix.

Written from EN 16931-1 (its rules are named where they are applied), from ISO 4217's minor units, and from the rules of the
trade that stand in the paragraphs below; it shares nothing with the application. Reads deals and line items as JSON from
standard input and prints, for each deal, the expected values by sheet: the keys are formulas, amounts are plain decimals.

The trade's rules:
- A line comes to quantity times price less its percentage, rounded to the currency's smallest unit. A return has a negative
  quantity, a trade-in a negative price; both are lines like any other.
- Rounding is half away from zero. A sum is split in whole units by largest remainder, a negative one as its mirror.
- Money off a line takes the line to zero at most, and nothing off a line that is a return. Money off the whole takes what is
  there to zero at most, and nothing off a document that comes to nothing or less.
- Optional lines are offered beside the sum and are not part of it.
"""
import calendar
import datetime
import json
import sys
from collections import OrderedDict
from fractions import Fraction

ISSUED = datetime.date(2026, 11, 23)
UNTAXED = {"zero", "exempt", "reverse charge", "export", "outside scope"}
DECIMALS = {"JPY": 0, "KWD": 3}


def number(text, otherwise="0"):
    return Fraction(otherwise if text is None else str(text))


def half_away(value):
    """A whole number, halves away from zero."""
    whole = (abs(value) * 2 + 1) // 2
    return -whole if value < 0 else whole


class Money:
    """Rounds and prints in one currency."""

    def __init__(self, currency):
        self.places = DECIMALS.get(currency, 2)

    def round(self, value):
        return Fraction(half_away(value * 10 ** self.places), 10 ** self.places)

    def split(self, total, weights):
        """Whole units by largest remainder; the earlier of equal remainders first."""
        if total == 0:
            return [Fraction(0) for _ in weights]
        if total < 0:
            return [-part for part in self.split(-total, weights)]
        whole = sum(weights)
        return self.fit([total * weight / whole for weight in weights], total)

    def fit(self, exact, total):
        """Exact amounts in whole units that add up to a total in whole units."""
        unit = Fraction(1, 10 ** self.places)
        parts = [(each // unit) * unit for each in exact]
        left = (total - sum(parts)) / unit
        assert left.denominator == 1
        order = sorted(range(len(parts)), key=lambda at: (-(exact[at] - parts[at]), at))
        for at in order[: int(left)]:
            parts[at] += unit
        return parts

    def text(self, value):
        return plain(value)


def plain(value):
    """Plain decimal text of a fraction that ends."""
    value = Fraction(value)
    digits, places = value, 0
    while digits.denominator != 1:
        digits, places = digits * 10, places + 1
        assert places < 60
    sign = "-" if digits < 0 else ""
    figures = str(abs(digits.numerator)).rjust(places + 1, "0")
    return sign + (figures if places == 0 else figures[:-places] + "." + figures[-places:])


def applied_rate(line):
    """A category that bears no tax has the rate 0, whatever the line says (BR-Z-5, BR-E-5, BR-AE-5, BR-G-5, BR-O-5)."""
    return Fraction(0) if line["tax_category"] in UNTAXED else number(line["tax_rate"]) / 100


def tax_groups(lines):
    groups = OrderedDict()
    for line in lines:
        groups.setdefault((line["tax_category"], applied_rate(line)), []).append(line)
    return groups


class Calculation:
    def __init__(self, deal, lines):
        self.deal, self.lines = deal, lines
        self.money = Money(deal["currency"])
        self.chosen = [line for line in lines if not line["optional"]]
        self.listed = {line["id"]: self.money.round(number(line["quantity"]) * number(line["unit_price"])) for line in lines}
        # BT-131: the net of a line.
        self.net = {line["id"]: self.money.round(number(line["quantity"]) * number(line["unit_price"]) * (1 - number(line["discount"]) / 100)) for line in lines}
        self.subtotal = self.sum_of(self.net)  # BT-106, by BR-CO-10
        self.taxes = self.taxed(self.net)
        self.tax = sum((tax for *_, tax in self.taxes), Fraction(0))  # BT-110, by BR-CO-14
        self.total = self.subtotal + self.tax  # BT-112, by BR-CO-15

    def sum_of(self, values, lines=None):
        return sum((values[line["id"]] for line in (self.chosen if lines is None else lines)), Fraction(0))

    def taxed(self, nets):
        """Category, rate, base and tax: the base is the sum of the category's lines, the tax is rounded on it (BR-CO-17)."""
        rows = []
        for (category, rate), members in tax_groups(self.chosen).items():
            base = self.sum_of(nets, members)
            rows.append((category, rate, base, self.money.round(base * rate)))
        return rows

    def texts(self, values):
        return {key: [self.money.text(each) for each in value] if isinstance(value, list) else self.money.text(value) for key, value in values.items()}

    # Ready-made sheets

    def net_prices(self):
        return {
            "list_total": self.sum_of(self.listed), "discount_total": self.subtotal - self.sum_of(self.listed),
            "lines.net": [self.net[line["id"]] for line in self.lines],
            "tax_rows.base": [base for _, _, base, _ in self.taxes], "tax_rows.tax_amount": [tax for *_, tax in self.taxes],
            "subtotal": self.subtotal, "tax_total": self.tax, "total": self.total,
            "extras_total": self.sum_of(self.net, [line for line in self.lines if line["optional"]]),
        }

    def tax_per_line(self):
        taxes = {line["id"]: self.money.round(self.net[line["id"]] * applied_rate(line)) for line in self.lines}
        tax = self.sum_of(taxes)
        return {"lines[not optional].tax": [taxes[line["id"]] for line in self.chosen], "tax_total": tax, "total": self.subtotal + tax}

    def tax_included(self):
        """Prices are what is paid: the tax of a category is taken out of the sum of its lines."""
        nets, subtotal, bases = {}, Fraction(0), []
        for (_, rate), members in tax_groups(self.chosen).items():
            exact = [self.net[line["id"]] / (1 + rate) for line in members]
            base = self.money.round(sum(exact))
            # Nets of lines add up to the base; where the sum is below zero, as its mirror does.
            fitted = [-each for each in self.money.fit([-each for each in exact], -base)] if sum(exact) < 0 else self.money.fit(exact, base)
            nets.update({line["id"]: part for line, part in zip(members, fitted)})
            bases.append(base)
            subtotal += base
        return {
            "lines[not optional].net": [nets[line["id"]] for line in self.chosen], "tax_rows.base": bases,
            "subtotal": subtotal, "tax_total": self.subtotal - subtotal, "total": self.subtotal,
        }

    def chained(self):
        after = {}
        for line in self.lines:
            left = self.money.round(self.listed[line["id"]] * (1 - number(line["discount"]) / 100))
            off = number(line["discount_amount"])
            after[line["id"]] = left if left <= 0 else left - min(left, off)
        goods = self.sum_of(after)
        off = Fraction(0)
        if goods > 0:
            off = min(goods, self.money.round(goods * number(self.deal["discount_percent"]) / 100) + number(self.deal["discount_amount"]))
        parts = self.money.split(off, [after[line["id"]] for line in self.chosen])
        nets = {line["id"]: after[line["id"]] - part for line, part in zip(self.chosen, parts)}
        subtotal = self.sum_of(nets)
        tax = sum((tax for *_, tax in self.taxed(nets)), Fraction(0))
        return {"lines.after_money": [after[line["id"]] for line in self.lines], "goods": goods, "deal_discount": off, "subtotal": subtotal, "tax_total": tax, "total": subtotal + tax}

    def group_discounts(self):
        groups = OrderedDict()
        for line in self.chosen:
            groups.setdefault(line["section"], []).append(line)
        nets, off_in_all = dict(self.net), Fraction(0)
        for members in groups.values():
            value = self.sum_of(self.net, members)
            rate = next((rate for start, rate in ((50000, "5"), (20000, "3.5"), (5000, "2")) if value >= start), "0")
            off = self.money.round(value * number(rate) / 100)
            off_in_all += off
            for line, part in zip(members, self.money.split(off, [self.net[line["id"]] for line in members])):
                nets[line["id"]] = self.net[line["id"]] - part
        subtotal = self.sum_of(nets)
        return {"group_discount": off_in_all, "subtotal": subtotal, "total": subtotal + sum((tax for *_, tax in self.taxed(nets)), Fraction(0))}

    def allowances_and_charges(self):
        """Allowances (BT-107) and charges (BT-108) of the document, in the tax categories by their nets (BR-S-8)."""
        allowances = charges = Fraction(0)
        if self.subtotal > 0:
            allowances = min(self.subtotal, self.money.round(self.subtotal * number(self.deal["discount_percent"]) / 100) + number(self.deal["discount_amount"]))
        weight = sum((number(line["quantity"]) * number(line["weight"]) for line in self.chosen if number(line["quantity"]) > 0), Fraction(0))
        if weight > 0 and self.subtotal > 0:
            charges = self.money.round(number(next(price for start, price in ((10000, "1890.00"), (2000, "640.00"), (500, "240.00"), (50, "65.00"), (0, "18.00")) if weight >= start)))
        bases = [base for _, _, base, _ in self.taxes]
        less, more = self.money.split(allowances, bases), self.money.split(charges, bases)
        taxable = [base - one + other for base, one, other in zip(bases, less, more)]
        tax = sum((self.money.round(base * rate) for base, (_, rate, _, _) in zip(taxable, self.taxes)), Fraction(0))
        net_total = self.subtotal - allowances + charges  # BT-109, by BR-CO-13
        return {"allowances": allowances, "charges": charges, "net_total": net_total, "tax_rows.base": taxable, "tax_total": tax, "total": net_total + tax}

    def deposit(self, share):
        """A share of each category's net, and the tax on it: category, rate, base, tax."""
        return [(category, rate, self.money.round(base * share), self.money.round(self.money.round(base * share) * rate)) for category, rate, base, _ in self.taxes]

    def share(self, otherwise):
        return number(self.deal["deposit_percent"], otherwise) / 100

    def instalments(self):
        deposit = sum((base + tax for _, _, base, tax in self.deposit(self.share("0"))), Fraction(0))
        return {"payments.amount": self.money.split(self.total, [Fraction(30), Fraction(45), Fraction(25)]), "deposit": deposit, "after_deposit": self.total - deposit}

    def recurring(self):
        wanted = self.deal["wanted_by"]
        start = datetime.date.fromisoformat(wanted) if wanted else ISSUED
        days = calendar.monthrange(start.year, start.month)[1]
        share = Fraction(days - start.day + 1, days)
        contract = yearly = first = Fraction(0)
        for line in self.chosen:
            months, net = number(line["term_months"], "12"), self.net[line["id"]]
            periods = {"monthly": months, "yearly": months / 12}.get(line["billing"], Fraction(1))
            contract += self.money.round(net * periods)
            yearly += {"monthly": net * 12, "yearly": net}.get(line["billing"], Fraction(0))
            first += self.money.round(net * share) if line["billing"] == "monthly" else net
        return {"contract_total": contract, "yearly_total": yearly, "first_invoice": first}

    def head(self, line, within=None):
        """The topmost line that a line belongs to, among lines that are optional as it is; of two with one SKU the first."""
        top, seen = None, line
        while seen["part_of"]:
            owner = next((each for each in self.lines if each["optional"] == line["optional"] and each["sku"] == seen["part_of"]), None)
            if owner is None:
                break
            if within is None or within(owner):
                top = owner
            seen = owner
        return top

    def bundles(self):
        tops = {line["id"]: self.head(line) for line in self.lines}
        rolled = {}
        for line in self.lines:
            inside = [each for each in self.lines if tops[each["id"]] is line]
            rolled[line["id"]] = Fraction(0) if tops[line["id"]] else self.net[line["id"]] + self.sum_of(self.net, inside)
        return {"lines.rolled_up": [rolled[line["id"]] for line in self.lines], "subtotal": self.subtotal, "total": self.total}

    def margin(self):
        cost = sum((self.money.round(number(line["quantity"]) * number(line["unit_cost"])) for line in self.chosen), Fraction(0))
        return {"cost_total": cost, "margin_total": self.subtotal - cost}

    def cash_rounding(self):
        """Swiss cash: payable (BT-115) in coins of 0.05, the difference in BT-114."""
        payable = Fraction(half_away(self.total * 20), 20) if self.deal["currency"] == "CHF" else self.total
        return {"total": self.total, "rounding": payable - self.total, "payable": payable}

    # Invoices among invoices: a deposit, the final invoice after it, a credit note for both.

    def deposit_invoice(self):
        rows = self.deposit(self.share("30"))
        net, tax = sum((row[2] for row in rows), Fraction(0)), sum((row[3] for row in rows), Fraction(0))
        return {"tax_rows.base": [row[2] for row in rows], "tax_rows.tax_amount": [row[3] for row in rows], "subtotal": net, "tax_total": tax, "total": net + tax, "due": net + tax}

    def prepaid(self):
        return sum((base + tax for _, _, base, tax in self.deposit(self.share("30"))), Fraction(0))

    def final_invoice(self):
        prepaid = self.prepaid()  # BT-113; the payable amount is BT-112 less BT-113 (BR-CO-16)
        return {"prepaid": prepaid, "retention": self.money.round(self.total / 20), "payable": self.total - prepaid, "due": self.total - prepaid - self.money.round(self.total / 20)}

    def credit_note(self):
        """Everything that was asked: deposit and final invoice together ask the order, so that is what is credited."""
        return {"subtotal": self.subtotal, "tax_total": self.tax, "total": self.total, "due": self.total}

    def receipt(self):
        """What the deposit and the final invoice ask, an invoice each."""
        asked = [self.prepaid(), self.total - self.prepaid()]
        return {"paid.paid_gross": [sum for sum in asked if sum != 0], "received_net": self.subtotal, "received_tax": self.tax, "received": self.total}

    # Templates

    def printed(self, optional):
        """Rows that a table of bundles prints, in order: a rolled-up or hidden line with all that is inside of it."""
        rolls = lambda line: line["parts_shown"] in ("rolled up", "hidden")
        inside = {line["id"]: self.head(line, rolls) for line in self.lines}
        rows = OrderedDict((line["id"], self.net[line["id"]]) for line in self.lines if line["optional"] == optional and inside[line["id"]] is None)
        for line in self.lines:
            if line["optional"] == optional and inside[line["id"]] is not None:
                rows[inside[line["id"]]["id"]] += self.net[line["id"]]
        return list(rows.values())

    def offer(self):
        extras = [line for line in self.lines if line["optional"]]
        return {
            "lines[not optional and not inside].printed_net": self.printed(False), "lines[optional and not inside].printed_net": self.printed(True),
            "list_total": self.sum_of(self.listed), "subtotal": self.subtotal, "tax_rows.tax_amount": [tax for *_, tax in self.taxes],
            "tax_total": self.tax, "total": self.total, "SUM(lines[optional].net)": self.sum_of(self.net, extras),
        }

    def proposal(self):
        """A section has the lines that stand in it; a part stands where the line it belongs to stands."""
        sections = OrderedDict()
        for line in self.chosen:
            top = self.head(line) or line
            sections[top["section"]] = sections.get(top["section"], Fraction(0)) + self.net[line["id"]]
        return {**self.offer(), "sections.section_net": list(sections.values()), "payments.amount": self.money.split(self.total, [Fraction(30), Fraction(45), Fraction(25)])}

    def confirmation(self):
        return {**self.offer(), "deposit": self.prepaid()}

    def final_template(self):
        prepaid = self.prepaid()
        return {**self.offer(), "prepaid": prepaid, "due": self.total - prepaid}

    def agreement(self):
        recurring = [line for line in self.chosen if line["billing"] != "once"]
        yearly = sum((self.net[line["id"]] * (12 if line["billing"] == "monthly" else 1) for line in recurring), Fraction(0))
        terms = [line["term_months"] for line in recurring if line["term_months"] is not None]
        return {"yearly": yearly, "over_term": self.money.round(yearly * max(terms, default=12) / 12)}

    def all(self):
        return {
            "net-prices": self.net_prices(), "tax-per-line": self.tax_per_line(), "tax-included": self.tax_included(),
            "chained-discounts": self.chained(), "group-discounts": self.group_discounts(),
            "allowances-and-charges": self.allowances_and_charges(), "instalments": self.instalments(),
            "deposit-invoice": self.deposit_invoice(), "final-invoice": self.final_invoice(), "credit-note": self.credit_note(),
            "recurring": self.recurring(), "bundles": self.bundles(), "cash-rounding": self.cash_rounding(),
            **({"margin": self.margin()} if all(line["unit_cost"] is not None for line in self.chosen) else {}),
            "template glasshouse-quote": self.offer(), "template full-proposal": self.proposal(),
            "template order-confirmation": self.confirmation(), "template final-invoice": self.final_template(),
            "template deposit-invoice": self.deposit_invoice(), "template credit-note": self.credit_note(),
            "template service-agreement": self.agreement(), "template receipt": self.receipt(),
        }


def main():
    records = json.load(sys.stdin)
    by_deal = {}
    for line in records["lineItems"]:
        by_deal.setdefault(line["deal_id"], []).append(line)
    answers = {}
    for deal in records["deals"]:
        lines = by_deal.get(deal["id"], [])
        if deal["currency"] is None or any(line["unit_price"] is None for line in lines):
            continue
        calculation = Calculation(deal, lines)
        answers[deal["id"]] = {sheet: calculation.texts(values) for sheet, values in calculation.all().items()}
    json.dump(answers, sys.stdout)


main()
