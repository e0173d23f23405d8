import { useQueryClient } from '@tanstack/react-query'

import { api, body, type Schemas } from '../api/client'
import { keepAnswer, keys } from '../api/queries'
import { useUndo } from '../shell/undo'

type House = Schemas['HouseView']
type Fields = Omit<Schemas['HouseChange'], 'version'>
type Person = Schemas['PersonData']

export interface HouseChange {
  house: (fields: Fields, label: string) => Promise<void>
  /** Say another limit as a person writes it; empty for the usual one. */
  limit: (name: string, text: string, label: string) => Promise<void>
  /** Add a person, or change the one with this key. */
  person: (key: string | null, data: Person) => Promise<void>
  removePerson: (person: Schemas['Person']) => Promise<void>
}

/** Changes of a household; everything that was computed by its rules is asked for again. */
export function useHouseChange(house: House): HouseChange {
  const client = useQueryClient()
  const undo = useUndo()
  const path = { household_id: house.id }
  const settle = (next: House) => {
    keepAnswer(client, keys.house(house.id), next)
    void client.invalidateQueries({
      predicate: ({ queryKey }) => queryKey[0] !== 'house' && queryKey[0] !== 'vocabulary',
    })
  }
  const refresh = () => client.invalidateQueries({ queryKey: keys.house(house.id) })
  const patch = async (fields: Fields) => {
    const version = client.getQueryData<House>(keys.house(house.id))?.version ?? house.version
    try {
      settle(
        await body(
          api.PATCH('/api/households/{household_id}', { params: { path }, body: { version, ...fields } }),
        ),
      )
    } catch (error) {
      await refresh()
      throw error
    }
  }
  const put = async (key: string | null, data: Person) =>
    settle(
      await body(
        key === null
          ? api.POST('/api/households/{household_id}/people', { params: { path }, body: data })
          : api.PUT('/api/households/{household_id}/people/{key}', {
              params: { path: { ...path, key } },
              body: data,
            }),
      ),
    )

  const takeOut = async (key: string) => {
    const answer = await body(
      api.DELETE('/api/households/{household_id}/people/{key}', { params: { path: { ...path, key } } }),
    )
    settle(answer.house)
    return answer.taken_out
  }

  const putLimit = async (name: string, text: string) => {
    const version = client.getQueryData<House>(keys.house(house.id))?.version ?? house.version
    settle(
      await body(
        api.PUT('/api/households/{household_id}/limits', { params: { path }, body: { version, name, text } }),
      ),
    )
  }

  return {
    limit: async (name, text, label) => {
      const before = { rules: house.rules } as Fields
      await putLimit(name, text)
      undo.did({ label: label.toLowerCase(), undo: () => patch(before), redo: () => putLimit(name, text) })
    },
    house: async (fields, label) => {
      const before = Object.fromEntries(
        Object.keys(fields).map((name) => [name, house[name as keyof typeof house]]),
      ) as Fields
      await patch(fields)
      undo.did({ label, undo: () => patch(before), redo: () => patch(fields) })
    },
    person: async (key, data) => {
      const before = house.people.find((person) => person.id === key)
      await put(key, data)
      if (key === null || !before) return
      const old = {
        name: before.name,
        posture: before.posture,
        age: before.age,
        hand: before.hand,
        pronoun: before.pronoun,
        kept_from: before.kept_from ? [...before.kept_from] : null,
        stature: `${before.stature} mm`,
      }
      undo.did({ label: `change ${data.name}`, undo: () => put(key, old), redo: () => put(key, data) })
    },
    removePerson: async (person) => {
      let gone = await takeOut(person.id)
      undo.did({
        label: `take out ${person.name}`,
        undo: async () =>
          settle(
            await body(
              api.POST('/api/households/{household_id}/people/{key}/back', {
                params: { path: { ...path, key: gone.person.id } },
                body: gone,
              }),
            ),
          ),
        redo: async () => {
          gone = await takeOut(person.id)
        },
      })
    },
  }
}
