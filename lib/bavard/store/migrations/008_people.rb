# frozen_string_literal: true

# People who help with a show, how they are invited, and prompters that open without signing in.
Sequel.migration do
  change do
    create_table(:members) do
      foreign_key :show_id, :shows, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :role, null: false
      String :name, null: false
      Bignum :since_ms, null: false
      primary_key %i[show_id account_id]
      index %i[account_id]
      constraint(:role_is_known, role: %w[director moderator reader])
      constraint(:name_is_short) { char_length(name) =~ (1..60) }
    end

    create_table(:invitations) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      String :token, null: false, unique: true
      String :role, null: false
      String :name, null: false
      Bignum :made_at_ms, null: false
      constraint(:role_is_known, role: %w[director moderator reader])
      constraint(:token_is_long) { char_length(token) >= 32 }
    end

    create_table(:prompter_links) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      String :token, null: false, unique: true
      String :name, null: false
      TrueClass :acts, null: false, default: false
      Bignum :made_at_ms, null: false
      constraint(:token_is_long) { char_length(token) >= 32 }
    end
  end
end
