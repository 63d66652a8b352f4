import MarkdownIt from 'markdown-it'
import type { Plugin } from 'vite'

/**
 * Makes the jobs of docs/guide.md part of the screens, so that both say the same: a heading of the second level begins a job. Its pictures come
 * along; what it links to lies in the repository, where the screens cannot go, and stands as plain words.
 */
export function guide(): Plugin {
  return {
    name: 'awlsmith-guide',
    enforce: 'pre',
    transform(text, id) {
      if (!id.endsWith('.md')) {
        return null
      }
      const imports: string[] = []
      const markdown = new MarkdownIt()
      markdown.renderer.rules.link_open = () => ''
      markdown.renderer.rules.link_close = () => ''
      markdown.renderer.rules.image = (tokens, at) => {
        const token = tokens[at]!
        const name = `picture${imports.length}`
        imports.push(`import ${name} from './${token.attrGet('src')}?url'`)
        return `<img src="@@${name}@@" alt="${markdown.utils.escapeHtml(token.content)}">`
      }
      const [opening = '', ...parts] = text.split(/^## /m)
      const jobs = parts.map((part) => {
        const end = part.indexOf('\n')
        return { title: part.slice(0, end).trim(), html: markdown.render(part.slice(end)) }
      })
      const intro = markdown.render(opening.replace(/^# .*$/m, ''))
      const filled = (value: unknown) => JSON.stringify(value).replace(/@@(picture\d+)@@/g, '" + $1 + "')
      return {
        code: `${imports.join('\n')}\nexport const intro = ${filled(intro)}\nexport const jobs = ${filled(jobs)}\n`,
        map: null,
      }
    },
  }
}
