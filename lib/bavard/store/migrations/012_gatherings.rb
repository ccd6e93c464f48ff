# frozen_string_literal: true

# Gifts to a good cause are events of their own; fellow hosts have cards.
Sequel.migration do
  up do
    alter_table(:lines) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[said action reply paid follow subscription renewal gift tip purchase visit cause own]
    end

    create_table(:fellows) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, on_delete: :cascade
      String :key, null: false
      String :name, null: false
      String :words, null: false, default: ""
      String :last_shown, null: false, default: ""
      Bignum :followers
      String :picture
      jsonb :clips, null: false, default: "[]"
      unique %i[show_id key]
      constraint(:name_is_short) { char_length(name) =~ (1..120) }
    end
  end

  down do
    drop_table(:fellows)
    from(:lines).where(kind: "cause").update(kind: "own")
    alter_table(:lines) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[said action reply paid follow subscription renewal gift tip purchase visit own]
    end
  end
end
