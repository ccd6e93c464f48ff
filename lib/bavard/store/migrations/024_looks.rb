# frozen_string_literal: true

# Looks of a host's own: of one kind of piece, or of a whole stage.
Sequel.migration do
  change do
    create_table(:looks) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      String :name, null: false
      jsonb :document, null: false
    end
  end
end
