# frozen_string_literal: true

# Sets of emotes that a described platform hands out, where a host wants them: each on a shelf of its own, with the list as it was read.
Sequel.migration do
  change do
    create_table(:emote_sets) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      foreign_key :feed_id, :feeds, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :shelf_id, :shelves, type: :Bignum, on_delete: :cascade
      String :name, null: false
      String :said
      jsonb :list, null: false, default: "[]"
      Bignum :read_at_ms, null: false, default: 0
      unique %i[feed_id name]
    end
  end
end
