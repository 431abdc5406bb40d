/** What every page test stands on: a server, a person who works here, and no live link. */
import { vi } from 'vitest'

import { people } from '@/shared/state/people'
import { personId, unit } from '@/shared/state/preferences'
import type { SmallUnit } from '@/shared/format/lengths'

import { type FakeServer, fakeServer } from './server'

/** Nothing kept of the test before; Wren works here, and reads in `shown`. */
export function aroundPage(shown: SmallUnit = 'thou'): FakeServer {
  localStorage.clear()
  vi.stubGlobal(
    'EventSource',
    class {
      close() {
        return undefined
      }
    },
  )
  const server = fakeServer()
  people.value = [{ person_id: 'w', name: 'Wren' }]
  personId.value = 'w'
  unit.value = shown
  return server
}
