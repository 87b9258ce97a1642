import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { FIELD_TYPES, type FieldTypeName } from '#core/model/kind-field.ts';

/** The types of fields as options of a choice. */
export function TypeOptions({ types = FIELD_TYPES }: { readonly types?: readonly FieldTypeName[] }) {
  return types.map((type) => (
    <option key={type} value={type} title={FIELD_TYPE[type].says}>
      {FIELD_TYPE[type].name}
    </option>
  ));
}
