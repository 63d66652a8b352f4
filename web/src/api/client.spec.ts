import { afterEach, describe, expect, it, vi } from 'vitest'
import { api, asProblem, onSignedOut, Problem, xsrfToken } from './client'

afterEach(() => vi.unstubAllGlobals())

describe('the server’s answers', () => {
  it('keeps the sentence and the places of a refusal', () => {
    const body = {
      type: 'urn:awlsmith:problem:recipe',
      detail: 'step 1: factor is 9, outside: allowed is 0.125..8 x',
      problems: [{ step: 0, key: 'factor', sentence: 'factor is 9, outside: allowed is 0.125..8 x' }],
    }
    const problem = asProblem(422, body)
    expect(problem.message).toContain('allowed is 0.125..8')
    expect(problem.problems[0]?.key).toBe('factor')
  })

  it('tell everybody when the session has ended, and name the page in every question', async () => {
    const fetched = vi
      .fn()
      .mockResolvedValue(new Response('{"detail":"you are not signed in"}', { status: 401 }))
    vi.stubGlobal('fetch', fetched)
    const heard = vi.fn()
    const stop = onSignedOut(heard)
    await expect(api.clips()).rejects.toThrow('you are not signed in')
    expect(heard).toHaveBeenCalledTimes(1)
    expect(fetched.mock.calls[0]?.[1].headers['X-Page']).toMatch(/^\w+$/)
    stop()
    await expect(api.clips()).rejects.toThrow()
    expect(heard).toHaveBeenCalledTimes(1)
  })

  it('trusts no page of something in between', () => {
    expect(asProblem(502, '<html>').message).toContain('does not answer')
    expect(asProblem(418, undefined).message).toContain('418')
  })

  it('finds the token among the cookies', () => {
    expect(xsrfToken('a=b; XSRF-TOKEN=x%2By; c=d')).toBe('x+y')
    expect(xsrfToken('a=b')).toBe('')
  })

  it('says so when the server cannot be reached', async () => {
    vi.stubGlobal('fetch', () => Promise.reject(new TypeError('failed')))
    await expect(api.clips()).rejects.toBeInstanceOf(Problem)
    await expect(api.clips()).rejects.toMatchObject({ status: 0 })
  })
})
