export const share = (part: number, whole: number) => `${Math.round((100 * part) / Math.max(whole, 1))} %`
