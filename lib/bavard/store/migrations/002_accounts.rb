# frozen_string_literal: true

# What Rodauth keeps: https://rodauth.jeremyevans.net, features login, remember, lockout, otp, recovery_codes.
Sequel.migration do
  change do
    create_table(:accounts) do
      primary_key :id, type: :Bignum
      Integer :status_id, null: false, default: 1
      citext :email, null: false, unique: true
      String :password_hash, null: false
      DateTime :created_at, null: false, default: Sequel::CURRENT_TIMESTAMP
    end

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

    create_table(:account_otp_keys) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum, on_delete: :cascade
      String :key, null: false
      Integer :num_failures, null: false, default: 0
      Time :last_use, null: false, default: Sequel::CURRENT_TIMESTAMP
    end

    create_table(:account_recovery_codes) do
      foreign_key :id, :accounts, type: :Bignum, on_delete: :cascade
      String :code
      primary_key [:id, :code]
    end
  end
end
