# frozen_string_literal: true

# Links by which microphones come into rooms of their own: one for each person, and one, without a key and a name, at which a name is chosen.
Sequel.migration do
  kinds = %w[irc polling socket inbox voice described]

  up do
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: [*kinds, "microphones"]
    end
    create_table(:microphones) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      foreign_key :feed_id, :feeds, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :account_id, :accounts, type: :Bignum, index: true, on_delete: :cascade
      String :key
      String :name
      String :token
      String :token_digest, unique: true
      String :token_closed
      unique %i[feed_id key]
      constraint(:has_a_token) { (Sequel[:token] !~ nil) | (Sequel[:token_digest] !~ nil) }
      constraint(:name_is_short) { (name =~ nil) | (char_length(name) =~ (1..60)) }
    end
  end

  down do
    drop_table(:microphones)
    from(:feeds).where(kind: "microphones").delete
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: kinds
    end
  end
end
