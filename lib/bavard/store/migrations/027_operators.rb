# frozen_string_literal: true

# Who runs this installation, what they did, and what a show may have that is other than usual.
Sequel.migration do
  change do
    alter_table(:accounts) do
      add_column :operator, TrueClass, null: false, default: false
      # While it is set nobody signs in with it, and its show does not run.
      add_column :closed_at_ms, :Bignum
    end

    add_column :shows, :ceilings, :jsonb, null: false, default: "{}"

    # Of somebody who may make an account where that is not open to all.
    create_table(:account_invitations) do
      primary_key :id, type: :Bignum
      String :token_digest, null: false, unique: true
      String :name, null: false
      Bignum :made_at_ms, null: false
    end

    # By name, not by account: what was done stands here also when those are gone.
    create_table(:operator_deeds) do
      primary_key :id, type: :Bignum
      Bignum :at_ms, null: false, index: true
      String :by, null: false
      String :what, null: false
      String :about, null: false, default: ""
      column :detail, :jsonb, null: false, default: "{}"
    end
  end
end
