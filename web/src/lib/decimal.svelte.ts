/** The decimal sign that this person reads and writes; set from the preferences. */
class Decimal {
  comma = $state(false)
}
export const decimal = new Decimal()

/** A figure's digits with the person's decimal sign. */
export function withSign(digits: string): string {
  return decimal.comma ? digits.replace('.', ',') : digits
}
