/** Published sources of figures, as their readers know them; each in full in docs/sources.md. */
const SOURCES: Record<string, string> = {
  'alduchov-eskridge-1996': 'Alduchov, Eskridge: Improved Magnus Form Approximation of Saturation Vapor Pressure, 1996',
  'fekete-schepers-2004': 'Fekete, Schepers: bounds for higher-dimensional orthogonal packing, 2004',
  'incropera-dewitt': 'Incropera, DeWitt: Fundamentals of Heat and Mass Transfer',
  geometry: 'elementary geometry',
  'iso-8502-4': 'ISO 8502-4: probability of condensation before coating',
  'lumped-capacity': 'Incropera, DeWitt: Fundamentals of Heat and Mass Transfer, chapter 5',
  'milnor-1969': 'Milnor: A Problem in Cartography, 1969',
  'nist-sp811': 'NIST Special Publication 811: Guide for the Use of the SI, 2008',
  'scheithauer-1999': 'Scheithauer: LP-based bounds for the container loading problem, 1999',
  'sharma-2005': 'Sharma, Wu, Dalal: The CIEDE2000 Color-Difference Formula, 2005',
}

/** The sources of a figure in words; what is no reference to the list of sources stands as it is. */
export const sourceText = (source: string): string =>
  source
    .split(', docs/')
    .map((part) => part.replace(/^(docs\/)?sources\.md#/, ''))
    .map((key) => SOURCES[key] ?? key)
    .join('; ')
