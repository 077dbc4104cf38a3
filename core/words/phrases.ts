import { own } from '../record/own';

/** Languages that ready-made words are translated into; the first is the one their keys are written in. */
const PHRASE_LANGUAGES = ['en', 'nl', 'es', 'de', 'ar'] as const;

type Translations = readonly [nl: string, es: string, de: string, ar: string];

/** Words of the trade that ready-made blocks print, by their English. */
const PHRASES: Readonly<Record<string, Translations>> = {
  yes: ['ja', 'sí', 'ja', 'نعم'],
  no: ['nee', 'no', 'nein', 'لا'],
  'number assigned when filed': ['nummer volgt bij opslaan', 'número asignado al archivar', 'Nummer wird beim Ablegen vergeben', 'يُمنح الرقم عند الحفظ'],
  Trial: ['Proef', 'Prueba', 'Probe', 'تجريبي'],
  Page: ['Pagina', 'Página', 'Seite', 'صفحة'],
  of: ['van', 'de', 'von', 'من'],
  'Carried forward': ['Transport', 'Suma y sigue', 'Übertrag', 'المجموع المرحّل'],
  'Brought forward': ['Overdracht', 'Suma anterior', 'Übertrag', 'المجموع المنقول'],
  Quote: ['Offerte', 'Presupuesto', 'Angebot', 'عرض سعر'],
  Proposal: ['Voorstel', 'Propuesta', 'Angebotsmappe', 'عرض مفصّل'],
  Invoice: ['Factuur', 'Factura', 'Rechnung', 'فاتورة'],
  'Deposit invoice': ['Voorschotfactuur', 'Factura de anticipo', 'Anzahlungsrechnung', 'فاتورة دفعة مقدمة'],
  'Final invoice': ['Eindfactuur', 'Factura final', 'Schlussrechnung', 'فاتورة ختامية'],
  'Credit note': ['Creditnota', 'Nota de abono', 'Gutschrift', 'إشعار دائن'],
  'Order confirmation': ['Orderbevestiging', 'Confirmación de pedido', 'Auftragsbestätigung', 'تأكيد طلب'],
  'Delivery note': ['Pakbon', 'Albarán', 'Lieferschein', 'إشعار تسليم'],
  Letter: ['Brief', 'Carta', 'Schreiben', 'خطاب'],
  Receipt: ['Kwitantie', 'Recibo', 'Quittung', 'إيصال'],
  Agreement: ['Overeenkomst', 'Contrato', 'Vereinbarung', 'اتفاقية'],
  Item: ['Artikel', 'Concepto', 'Position', 'البند'],
  Qty: ['Aantal', 'Cant.', 'Menge', 'الكمية'],
  Unit: ['Eenh.', 'Ud.', 'Einh.', 'الوحدة'],
  Price: ['Prijs', 'Precio', 'Preis', 'السعر'],
  'Disc.': ['Kort.', 'Dto.', 'Rabatt', 'الخصم'],
  Net: ['Netto', 'Neto', 'Netto', 'الصافي'],
  Weight: ['Gewicht', 'Peso', 'Gewicht', 'الوزن'],
  Packages: ['Colli', 'Bultos', 'Packstücke', 'الطرود'],
  Carrier: ['Vervoerder', 'Transportista', 'Frachtführer', 'الناقل'],
  'Tax base': ['Grondslag', 'Base imponible', 'Bemessungsgrundlage', 'الأساس الضريبي'],
  'Tax category': ['Btw-categorie', 'Tipo de IVA', 'Steuerkategorie', 'فئة الضريبة'],
  Rate: ['Tarief', 'Tipo', 'Satz', 'النسبة'],
  VAT: ['Btw', 'IVA', 'USt.', 'ضريبة القيمة المضافة'],
  on: ['over', 'sobre', 'auf', 'على'],
  Amount: ['Bedrag', 'Importe', 'Betrag', 'المبلغ'],
  'List value': ['Catalogusprijs', 'Valor de tarifa', 'Listenwert', 'القيمة قبل الخصم'],
  Discounts: ['Kortingen', 'Descuentos', 'Nachlässe', 'الخصومات'],
  Subtotal: ['Subtotaal', 'Subtotal', 'Zwischensumme', 'المجموع الفرعي'],
  Total: ['Totaal', 'Total', 'Gesamtbetrag', 'الإجمالي'],
  'Amount due': ['Te betalen', 'Importe a pagar', 'Zahlbetrag', 'المبلغ المستحق'],
  'Already invoiced': ['Eerder gefactureerd', 'Ya facturado', 'Bereits abgerechnet', 'سبق فوترته'],
  Date: ['Datum', 'Fecha', 'Datum', 'التاريخ'],
  Due: ['Vervalt', 'Vencimiento', 'Fällig', 'الاستحقاق'],
  Share: ['Aandeel', 'Parte', 'Anteil', 'النسبة'],
  'Valid until': ['Geldig tot', 'Válido hasta', 'Gültig bis', 'صالح حتى'],
  'Your VAT number': ['Uw btw-nummer', 'Su NIF-IVA', 'Ihre USt-IdNr.', 'رقمكم الضريبي'],
  'Your order': ['Uw order', 'Su pedido', 'Ihre Bestellung', 'طلبكم'],
  'Attn.': ['T.a.v.', 'A la atención de', 'z. Hd.', 'عناية'],
  Site: ['Locatie', 'Obra', 'Standort', 'الموقع'],
  Terms: ['Voorwaarden', 'Condiciones', 'Bedingungen', 'الشروط'],
  Payment: ['Betaling', 'Pago', 'Zahlung', 'الدفع'],
  'Optional extras': ['Opties', 'Opciones', 'Zusatzoptionen', 'إضافات اختيارية'],
  For: ['Voor', 'Por', 'Für', 'عن'],
  Signature: ['Handtekening', 'Firma', 'Unterschrift', 'التوقيع'],
  pc: ['st.', 'ud.', 'St.', 'قطعة'],
  bay: ['vak', 'módulo', 'Feld', 'وحدة'],
  day: ['dag', 'día', 'Tag', 'يوم'],
  job: ['post', 'p.a.', 'psch.', 'مقطوعية'],
  month: ['maand', 'mes', 'Monat', 'شهر'],
  year: ['jaar', 'año', 'Jahr', 'سنة'],
  session: ['sessie', 'sesión', 'Termin', 'جلسة'],
  load: ['vracht', 'viaje', 'Fuhre', 'حمولة'],
  m: ['m', 'm', 'm', 'م'],
  'm²': ['m²', 'm²', 'm²', 'م²'],
  standard: ['standaard', 'general', 'Regelsatz', 'أساسي'],
  reduced: ['verlaagd', 'reducido', 'ermäßigt', 'مخفّض'],
  zero: ['nultarief', 'tipo cero', 'Nullsatz', 'صفري'],
  exempt: ['vrijgesteld', 'exento', 'steuerbefreit', 'معفى'],
  'reverse charge': ['verlegd', 'inversión del sujeto pasivo', 'Steuerschuldnerschaft des Leistungsempfängers', 'احتساب عكسي'],
  'outside scope': ['buiten toepassing', 'no sujeto', 'nicht steuerbar', 'خارج النطاق'],
  export: ['uitvoer', 'exportación', 'Ausfuhr', 'تصدير'],
}; // prettier-ignore

/** A ready-made word of the trade in a locale's language; itself where it has no translation. */
export function phrase(english: string, locale: string): string {
  const language = locale.split('-')[0] as (typeof PHRASE_LANGUAGES)[number];
  const at = PHRASE_LANGUAGES.indexOf(language) - 1;
  return own(PHRASES, english)?.[at] || english;
}

/** Quotation marks by language, as CLDR has them (`delimiters`); English ones elsewhere. */
const QUOTATION_MARKS: Readonly<Record<string, readonly [string, string]>> = {
  en: ['“', '”'], nl: ['‘', '’'], es: ['«', '»'], de: ['„', '“'], ar: ['”', '“'], fr: ['«\u00a0', '\u00a0»'], pl: ['„', '”'], ja: ['「', '」'],
}; // prettier-ignore

/** A text in the quotation marks of a locale's language. */
export function quoted(words: string, locale: string): string {
  const [open, close] = own(QUOTATION_MARKS, locale.split('-')[0]!) ?? QUOTATION_MARKS.en!;
  return `${open}${words}${close}`;
}
