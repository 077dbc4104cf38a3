import type { Rules } from './spell-out';

/**
 * Rules by language. Each has a set `counting` (a number that stands alone) and, where the word for a number depends on
 * what is counted, sets `masculine`, `feminine` and `neuter` for numbers before a noun.
 */

const ENGLISH: Rules = {
  language: 'en',
  sets: {
    counting: `0: zero; one; two; three; four; five; six; seven; eight; nine; ten; eleven; twelve; thirteen; fourteen; fifteen;
      sixteen; seventeen; eighteen; nineteen; 20: twenty[->>]; 30: thirty[->>]; 40: forty[->>]; 50: fifty[->>]; 60: sixty[->>];
      70: seventy[->>]; 80: eighty[->>]; 90: ninety[->>]; 100: << hundred[ and >>]; 1000: << thousand[>%rest>];
      1000000: << million[>%rest>]; 1000000000: << billion[>%rest>]; 1000000000000: << trillion[>%rest>]`,
    rest: `1: ' and =%counting=; 100: ' =%counting=`,
  },
};

const DUTCH: Rules = {
  language: 'nl',
  sets: {
    counting: `0: nul; één; twee; drie; vier; vijf; zes; zeven; acht; negen; tien; elf; twaalf; dertien; veertien; vijftien;
      zestien; zeventien; achttien; negentien; 20: [>%and>]twintig; 30: [>%and>]dertig; 40: [>%and>]veertig;
      50: [>%and>]vijftig; 60: [>%and>]zestig; 70: [>%and>]zeventig; 80: [>%and>]tachtig; 90: [>%and>]negentig;
      100: honderd[>%joined>]; 200: <%joined<honderd[>%joined>]; 1000: duizend[ >>]; 2000: <%joined<duizend[ >>];
      1000000: << miljoen[ >>]; 1000000000: << miljard[ >>]; 1000000000000: << biljoen[ >>]`,
    joined: `1: een; 2: =%counting=`,
    and: `1: eenen; tweeën; drieën; 4: =%counting=en`,
  },
};

/** German: `one` is the word for 1, also at the end of a larger number. */
const german = (
  one: string,
) => `0: null; ${one}; 2: =%small=; 100: <%masculine<hundert[>>]; 1000: <%masculine<tausend[>>];
  1000000: eine Million[ >>]; 2000000: <%counting< Millionen[ >>]; 1000000000: eine Milliarde[ >>];
  2000000000: <%counting< Milliarden[ >>]; 1000000000000: eine Billion[ >>]; 2000000000000: <%counting< Billionen[ >>]`;

const GERMAN: Rules = {
  language: 'de',
  sets: {
    counting: german('eins'),
    masculine: german('ein'),
    feminine: german('eine'),
    small: `1: ein; zwei; drei; vier; fünf; sechs; sieben; acht; neun; zehn; elf; zwölf; 13: >>zehn; 16: sechzehn; siebzehn;
      18: >>zehn; 20: [>>und]zwanzig; 30: [>>und]dreißig; 40: [>>und]vierzig; 50: [>>und]fünfzig; 60: [>>und]sechzig;
      70: [>>und]siebzig; 80: [>>und]achtzig; 90: [>>und]neunzig`,
  },
};

/** French: `one` is the word for 1. Before “mille”, “vingt” and “cent” take no s. */
const french = (
  one: string,
) => `0: zéro; ${one}; deux; trois; quatre; cinq; six; sept; huit; neuf; dix; onze; douze; treize;
  quatorze; quinze; seize; 17: dix->>; 20: vingt; 21: vingt et ${one}; 22: vingt->>; 30: trente; 31: trente et ${one};
  32: trente->>; 40: quarante; 41: quarante et ${one}; 42: quarante->>; 50: cinquante; 51: cinquante et ${one};
  52: cinquante->>; 60: soixante; 61: soixante et ${one}; 62/20: soixante->>; 71: soixante et onze; 72/20: soixante->>;
  80: quatre-vingts; 81/20: quatre-vingt->>; 100: cent[ >>]; 200: <%masculine< cent[ >>|s]; 1000: mille[ >>];
  2000: <%thousands< mille[ >>]; 1000000: un million[ >>]; 2000000: <%masculine< millions[ >>]; 1000000000: un milliard[ >>];
  2000000000: <%masculine< milliards[ >>]; 1000000000000: un billion[ >>]; 2000000000000: <%masculine< billions[ >>]`;

const FRENCH: Rules = {
  language: 'fr',
  sets: {
    counting: french('un'),
    masculine: french('un'),
    feminine: french('une'),
    thousands: `1: =%masculine=; 80: quatre-vingt; 81: =%masculine=; 100: cent[ >>]; 200: <%masculine< cent[ >>]`,
  },
};

/** Spanish: the words for 1 and 21, the ending of the hundreds, and the set of what stands before “mil”. */
const spanish = (
  one: string,
  twentyOne: string,
  ending: string,
  thousands: string,
) => `0: cero; ${one}; dos; tres; cuatro; cinco;
  seis; siete; ocho; nueve; diez; once; doce; trece; catorce; quince; dieciséis; diecisiete; dieciocho; diecinueve; veinte;
  ${twentyOne}; veintidós; veintitrés; veinticuatro; veinticinco; veintiséis; veintisiete; veintiocho; veintinueve;
  30: treinta[ y >>]; 40: cuarenta[ y >>]; 50: cincuenta[ y >>]; 60: sesenta[ y >>]; 70: setenta[ y >>]; 80: ochenta[ y >>];
  90: noventa[ y >>]; 100: cien; 101: ciento >>; 200: doscient${ending}[ >>]; 300: trescient${ending}[ >>];
  400: cuatrocient${ending}[ >>]; 500: quinient${ending}[ >>]; 600: seiscient${ending}[ >>]; 700: setecient${ending}[ >>];
  800: ochocient${ending}[ >>]; 900: novecient${ending}[ >>]; 1000: mil[ >>]; 2000: <%${thousands}< mil[ >>];
  1000000: un millón[ >>]; 2000000: <%masculine< millones[ >>]; 1000000000000: un billón[ >>];
  2000000000000: <%masculine< billones[ >>]`;

const SPANISH: Rules = {
  language: 'es',
  sets: {
    counting: spanish('uno', 'veintiuno', 'os', 'masculine'),
    masculine: spanish('un', 'veintiún', 'os', 'masculine'),
    feminine: spanish('una', 'veintiuna', 'as', 'feminine'),
  },
};

/** The tens of Italian: the vowel goes before “uno” and “otto”, and 3 at the end has an accent where `three` has one. */
const italianTens = (three: string) =>
  ['20 venti', '30 trenta', '40 quaranta', '50 cinquanta', '60 sessanta', '70 settanta', '80 ottanta', '90 novanta']
    .map((each) => {
      const [base, ten] = each.split(' ') as [string, string];
      const stem = ten.slice(0, -1);
      return `${base}: ${ten}; ${stem}uno; ${ten}due; ${ten}${three}; ${ten}quattro; ${ten}cinque; ${ten}sei; ${ten}sette; ${stem}otto; ${ten}nove`;
    })
    .join(';');

/** Italian: `one` is the word for 1 where it stands alone, `three` the one for 3 at the end of another number. */
const italian = (
  one: string,
  three: string,
) => `0: zero; ${one}; due; tre; quattro; cinque; sei; sette; otto; nove; dieci; undici;
  dodici; tredici; quattordici; quindici; sedici; diciassette; diciotto; diciannove; ${italianTens(three)};
  100: cent[>%cento>|o]; 200: <%thousands<cent[>%cento>|o]; 1000: mille[>%ending>]; 2000: <%thousands<mila[>%ending>];
  1000000: un milione[ >>]; 2000000: <%counting< milioni[ >>]; 1000000000: un miliardo[ >>];
  2000000000: <%counting< miliardi[ >>]; 1000000000000: un bilione[ >>]; 2000000000000: <%counting< bilioni[ >>]`;

const ITALIAN: Rules = {
  language: 'it',
  sets: {
    counting: italian('uno', 'tré'),
    masculine: italian('un', 'tré'),
    feminine: italian('una', 'tré'),
    thousands: italian('uno', 'tre').replaceAll('%ending', '%thousands').replaceAll('%cento', '%thousandscento'),
    // The o of “cento” goes before “otto” and “ottanta”.
    cento: `1: o=%ending=; 8: =%ending=; 9: o=%ending=; 80: =%ending=; 90: o=%ending=`,
    thousandscento: `1: o=%thousands=; 8: =%thousands=; 9: o=%thousands=; 80: =%thousands=; 90: o=%thousands=`,
    ending: `1: uno; due; tré; 4: =%counting=`,
  },
};

/** Portuguese: gendered words, and those from 16 to 19 and above a thousand million that differ between the countries. */
const portuguese = (
  one: string,
  two: string,
  ending: string,
  rest: string,
  teens: string,
  billions: string,
) => `0: zero; ${one};
  ${two}; três; quatro; cinco; seis; sete; oito; nove; dez; onze; doze; treze; catorze; quinze; ${teens}; 20: vinte[ e >>];
  30: trinta[ e >>]; 40: quarenta[ e >>]; 50: cinquenta[ e >>]; 60: sessenta[ e >>]; 70: setenta[ e >>]; 80: oitenta[ e >>];
  90: noventa[ e >>]; 100: cem; 101: cento e >>; 200: duzent${ending}[ e >>]; 300: trezent${ending}[ e >>];
  400: quatrocent${ending}[ e >>]; 500: quinhent${ending}[ e >>]; 600: seiscent${ending}[ e >>]; 700: setecent${ending}[ e >>];
  800: oitocent${ending}[ e >>]; 900: novecent${ending}[ e >>]; 1000: mil[>%${rest}>]; 2000: << mil[>%${rest}>];
  1000000: um milhão[>%${rest}>]; 2000000: <%masculine< milhões[>%${rest}>]; ${billions.replaceAll('%rest', `%${rest}`)}`;

/** “e” joins what is below a hundred, and whole hundreds. */
const portugueseRest = (set: string) => `1: ' e =%${set}=; 100: >%link>=%${set}=`;

function portugueseOf(language: string, teens: string, billions: string): Rules {
  return {
    language,
    sets: {
      counting: portuguese('um', 'dois', 'os', 'rest', teens, billions),
      masculine: portuguese('um', 'dois', 'os', 'rest', teens, billions),
      feminine: portuguese('uma', 'duas', 'as', 'restfeminine', teens, billions),
      rest: portugueseRest('masculine'),
      restfeminine: portugueseRest('feminine'),
      link: `0: ' e ; 1: ' `,
    },
  };
}

const PORTUGUESE_OF_BRAZIL = portugueseOf(
  'pt',
  'dezesseis; dezessete; dezoito; dezenove',
  '1000000000: um bilhão[>%rest>]; 2000000000: <%masculine< bilhões[>%rest>]; 1000000000000: um trilhão[>%rest>]; 2000000000000: <%masculine< trilhões[>%rest>]',
);
const PORTUGUESE_OF_PORTUGAL = portugueseOf(
  'pt-PT',
  'dezasseis; dezassete; dezoito; dezanove',
  '1000000000000: um bilião[>%rest>]; 2000000000000: <%masculine< biliões[>%rest>]',
);

/** Polish: the words for 1 and 2, where they stand alone and where they end another number. */
const polish = (
  one: string,
  two: string,
  last: string,
) => `0: zero; ${one}; ${two}; trzy; cztery; pięć; sześć; siedem; osiem;
  dziewięć; dziesięć; jedenaście; dwanaście; trzynaście; czternaście; piętnaście; szesnaście; siedemnaście; osiemnaście;
  dziewiętnaście; 20: dwadzieścia[ >%${last}>]; 30: trzydzieści[ >%${last}>]; 40: czterdzieści[ >%${last}>];
  50: pięćdziesiąt[ >%${last}>]; 60: sześćdziesiąt[ >%${last}>]; 70: siedemdziesiąt[ >%${last}>];
  80: osiemdziesiąt[ >%${last}>]; 90: dziewięćdziesiąt[ >%${last}>]; 100: sto[ >%${last}>]; 200: dwieście[ >%${last}>];
  300: trzysta[ >%${last}>]; 400: czterysta[ >%${last}>]; 500: <%counting<set[ >%${last}>]; 1000: tysiąc[ >%${last}>];
  2000: <%counting< $few{tysiące}other{tysięcy}$[ >%${last}>]; 1000000: milion[ >%${last}>];
  2000000: <%counting< $few{miliony}other{milionów}$[ >%${last}>]; 1000000000: miliard[ >%${last}>];
  2000000000: <%counting< $few{miliardy}other{miliardów}$[ >%${last}>]; 1000000000000: bilion[ >%${last}>];
  2000000000000: <%counting< $few{biliony}other{bilionów}$[ >%${last}>]`;

const POLISH: Rules = {
  language: 'pl',
  sets: {
    counting: polish('jeden', 'dwa', 'counting'),
    masculine: polish('jeden', 'dwa', 'counting'),
    // One of several stays “jeden”, whatever is counted: dwadzieścia jeden koron; two of several do not.
    feminine: polish('jedna', 'dwie', 'lastfeminine'),
    neuter: polish('jedno', 'dwa', 'counting'),
    lastfeminine: polish('jeden', 'dwie', 'lastfeminine'),
  },
};

/** Arabic: the units and teens of a gender; from three to ten they have the form that the counted noun has not. */
const arabic = (units: string, teens: string, set: string) =>
  `0: صفر; ${units}; ${teens}; 20: [>%and> و]عشرون;
  30: [>%and> و]ثلاثون; 40: [>%and> و]أربعون; 50: [>%and> و]خمسون; 60: [>%and> و]ستون; 70: [>%and> و]سبعون;
  80: [>%and> و]ثمانون; 90: [>%and> و]تسعون; 100: مائة[ و>>];
  200: مائتان[ و>>]; 300: <%hundreds<مائة[ و>>]; 1000: ألف[ و>>]; 2000: ألفان[ و>>]; 3000: <%masculine< آلاف[ و>>];
  11000/1000: <%before< $many{ألفًا}other{ألف}$[ و>>]; 1000000: مليون[ و>>]; 2000000: مليونان[ و>>];
  3000000: <%masculine< ملايين[ و>>]; 11000000/1000000: <%before< $many{مليونًا}other{مليون}$[ و>>];
  1000000000: مليار[ و>>]; 2000000000: ملياران[ و>>]; 3000000000: <%masculine< مليارات[ و>>];
  11000000000/1000000000: <%before< $many{مليارًا}other{مليار}$[ و>>]; 1000000000000: تريليون[ و>>];
  2000000000000: تريليونان[ و>>]; 3000000000000: <%masculine< تريليونات[ و>>];
  11000000000000/1000000000000: <%before< $many{تريليونًا}other{تريليون}$[ و>>]`
    .replaceAll('>>', `>%${set}>`)
    .replaceAll('%and', `%and${set}`);

const ARABIC_MASCULINE: readonly [string, string] = [
  'واحد; اثنان; ثلاثة; أربعة; خمسة; ستة; سبعة; ثمانية; تسعة; عشرة',
  'أحد عشر; اثنا عشر; ثلاثة عشر; أربعة عشر; خمسة عشر; ستة عشر; سبعة عشر; ثمانية عشر; تسعة عشر',
];

const ARABIC: Rules = {
  language: 'ar',
  sets: {
    counting: arabic(...ARABIC_MASCULINE, 'masculine'),
    masculine: arabic(...ARABIC_MASCULINE, 'masculine'),
    feminine: arabic(
      'واحدة; اثنتان; ثلاث; أربع; خمس; ست; سبع; ثمان; تسع; عشر',
      'إحدى عشرة; اثنتا عشرة; ثلاث عشرة; أربع عشرة; خمس عشرة; ست عشرة; سبع عشرة; ثماني عشرة; تسع عشرة',
      'feminine',
    ),
    andmasculine: `1: =%masculine=`,
    andfeminine: `1: إحدى; 2: =%feminine=`,
    // Two hundreds of something lose their n: مائتا ألف.
    before: `0: =%masculine=; 200: مائتا; 201: =%masculine=`,
    hundreds: `3: ثلاث; أربع; خمس; ست; سبع; ثمان; تسع`,
  },
};

/** Rules by BCP 47 tag: a language, or a language in a country whose words differ. */
export const NUMBER_WORDS: Readonly<Record<string, Rules>> = {
  en: ENGLISH,
  nl: DUTCH,
  de: GERMAN,
  fr: FRENCH,
  es: SPANISH,
  it: ITALIAN,
  pt: PORTUGUESE_OF_BRAZIL,
  'pt-PT': PORTUGUESE_OF_PORTUGAL,
  pl: POLISH,
  ar: ARABIC,
};
