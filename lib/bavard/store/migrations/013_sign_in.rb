# frozen_string_literal: true

# Where people are signed in, how their password is set anew, and how many tries went wrong. What remembered a browser, and
# what locked an account against its owner, is gone.
Sequel.migration do
  up do
    create_table(:account_active_session_keys) do
      foreign_key :account_id, :accounts, type: :Bignum, on_delete: :cascade
      String :session_id
      Time :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
      Time :last_use, null: false, default: Sequel::CURRENT_TIMESTAMP
      # What the browser says of itself, and from which address.
      String :browser, null: false, default: ""
      String :address, null: false, default: ""
      primary_key %i[account_id session_id]
    end

    create_table(:account_password_reset_keys) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum, on_delete: :cascade
      String :key, null: false
      DateTime :deadline, null: false
      DateTime :email_last_sent, null: false, default: Sequel::CURRENT_TIMESTAMP
    end

    # By a digest of who tried what from where.
    create_table(:sign_in_failures) do
      String :key, primary_key: true
      Integer :number, null: false
      Bignum :last_ms, null: false, index: true
    end

    # Whose link ends when they may not make one any more.
    alter_table(:prompter_links) { add_foreign_key :made_by, :accounts, type: :Bignum, on_delete: :cascade }

    %i[account_remember_keys account_lockouts account_login_failures].each { |table| drop_table(table) }
  end

  down do
    create_table(:account_remember_keys) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum, on_delete: :cascade
      String :key, null: false
      DateTime :deadline, null: false
    end

    create_table(:account_login_failures) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum, on_delete: :cascade
      Integer :number, null: false, default: 1
    end

    create_table(:account_lockouts) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum, on_delete: :cascade
      String :key, null: false
      DateTime :deadline, null: false
      DateTime :email_last_sent
    end

    alter_table(:prompter_links) { drop_foreign_key :made_by }
    %i[account_active_session_keys account_password_reset_keys sign_in_failures].each { |table| drop_table(table) }
  end
end
