/** The page of the guide for a place of the product. */
const pages: [RegExp, string][] = [
  [/^\/day/, '1-day'],
  [/^\/horses\/[^/]+\/(assess|assessment)/, '3-assessment'],
  [/^\/horses\/[^/]+\/(plan|progress|homework)/, '4-plan'],
  [/^\/horses\/[^/]+\/clips/, '9-clips'],
  [/^\/horses\/[^/]+\/(sessions|reports|paper|letter)/, '6-reports'],
  [/^\/horses/, '2-horses'],
  [/^\/reports|^\/arena\/[^/]+\/after/, '6-reports'],
  [/^\/arena/, '5-arena'],
  [/^\/outings/, '7-outings'],
  [/^\/diary/, '8-diary'],
  [/^\/clips/, '9-clips'],
  [/^\/(methods|cards)/, '11-methods'],
  [/^\/(people|password)/, '12-people'],
  [/^\/house/, '13-house'],
]

export const guideOf = (path: string) => `/guide/${pages.find(([at]) => at.test(path))?.[1] ?? 'README'}`
