# frozen_string_literal: true

# Platforms that a host describes: the text as it was written, whether or not it can be used yet, and frames with what has to become of them.
Sequel.migration do
  change do
    create_table(:descriptions) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      String :text, text: true, null: false
      jsonb :samples, null: false, default: "[]"
      Bignum :changed_at_ms, null: false
    end
  end
end
