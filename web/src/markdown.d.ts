/** The guide, as guidePlugin.ts makes it of docs/guide.md. */
declare module '*.md' {
  export const intro: string
  export const jobs: { title: string; html: string }[]
}
