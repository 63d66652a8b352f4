import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { createMemoryHistory, createRouter } from 'vue-router'
import { jobs } from '../../../docs/guide.md'
import Guide from './Guide.vue'

describe('the guide', () => {
  it('tells seven jobs, each with a picture and without a link that leads out', () => {
    expect(jobs).toHaveLength(7)
    for (const job of jobs) {
      expect(job.html).toContain('<img src=')
      expect(job.html).toContain('<ol>')
      expect(job.html).not.toContain('<a ')
      expect(job.html).not.toContain('@@')
    }
  })

  it('shows the job that was chosen', async () => {
    const router = createRouter({
      history: createMemoryHistory(),
      routes: [
        { path: '/guide', component: Guide },
        { path: '/shelf', component: Guide },
      ],
    })
    await router.push('/guide?job=2')
    const page = mount(Guide, { global: { plugins: [router] } })
    expect(page.get('h2').text()).toBe(jobs[1]!.title)
    await page.get('[data-test=job-5]').trigger('click')
    await flushPromises()
    expect(page.get('h2').text()).toBe(jobs[4]!.title)
  })
})
