# frozen_string_literal: true

# Accounts, by whoever runs Bavard. See bin/account.
require "argon2"
require "securerandom"
require_relative "../error"
require_relative "../start/data_folder"
require_relative "../start/postgres"
require_relative "../store/database"
require_relative "../store/shows"

module Bavard
  module Commands
    # What an operator does about accounts where no mail server is set up.
    class Account
      PROJECT = File.expand_path("../../..", __dir__)
      LETTERS = 20
      # As the pages hash passwords.
      COST = {t_cost: 2, m_cost: 16}.freeze
      USAGE = <<~WORDS
        bin/account                       who has an account
        bin/account make EMAIL [SHOW]     makes one, with a show of that name
        bin/account password EMAIL        sets a new password, and signs them out everywhere
        bin/account one-factor EMAIL      takes their second factor away, where app and recovery codes are lost
      WORDS

      # @param db [Sequel::Database]
      def initialize(db)
        @db = db
      end

      # @param words [Array<String>] as typed
      # @return [String] what to say
      # @raise [Bavard::Error]
      def run(words)
        what, email, show = words
        case what
        when nil, "list" then list
        when "make" then make(email, show)
        when "password" then password(find(email))
        when "one-factor" then one_factor(find(email))
        else raise Error, USAGE
        end
      end

      # With the database of this Bavard, whether it runs or not.
      def self.with_database(env)
        return yield(Store::Database.open(env["DATABASE_URL"])) unless env["DATABASE_URL"].to_s.empty?

        data = Start::DataFolder.new(Start::DataFolder.choose(env, PROJECT, Start::Postgres.user))
        raise Error, "There is no Bavard in #{data.root}. Name its folder with BAVARD_DATA." unless File.exist?(data.path("database.password"))

        postgres = Start::Postgres.new(data)
        running = postgres.running?
        yield Store::Database.open(postgres.start)
      ensure
        postgres&.stop unless running
      end

      private

      def list
        rows = @db[:accounts].left_join(:shows,
          account_id: :id).order(Sequel[:accounts][:id]).select_map([Sequel[:accounts][:email], Sequel[:shows][:name]])
        rows.empty? ? "Nobody yet." : rows.map { |email, show| "#{email}  #{show}".rstrip }.join("\n")
      end

      def find(email)
        raise Error, USAGE if email.to_s.empty?

        @db[:accounts].first(email:) || raise(Error, "Nobody has an account with #{email[0, 80]}.")
      end

      def make(email, show)
        raise Error, "An account goes by an e-mail address." unless email.to_s.match?(/\A[^@\s]{1,64}@[^@\s]{1,190}\z/)
        raise Error, "#{email} has an account already." if @db[:accounts].where(email:).any?

        word = SecureRandom.alphanumeric(LETTERS)
        @db.transaction do
          id = @db[:accounts].insert(email:, password_hash: hash(word))
          Store::Shows.new(@db).create(id, name: show.to_s.strip.empty? ? "My show" : show.strip[0, 80], host_name: email[/\A[^@]+/])
        end
        "#{email} signs in with #{word}"
      end

      def password(account)
        word = SecureRandom.alphanumeric(LETTERS)
        @db.transaction do
          @db[:accounts].where(id: account[:id]).update(password_hash: hash(word))
          @db[:account_active_session_keys].where(account_id: account[:id]).delete
          @db[:account_password_reset_keys].where(id: account[:id]).delete
        end
        "#{account[:email]} signs in with #{word}, and is signed out everywhere."
      end

      def one_factor(account)
        @db[:account_otp_keys].where(id: account[:id]).delete
        @db[:account_recovery_codes].where(id: account[:id]).delete
        "#{account[:email]} signs in with the password alone."
      end

      def hash(word) = Argon2::Password.new(COST).create(word)
    end
  end
end

if $PROGRAM_NAME == __FILE__
  begin
    Bavard::Commands::Account.with_database(ENV) { |db| puts Bavard::Commands::Account.new(db).run(ARGV) }
  rescue Bavard::Error => error
    abort error.message
  end
end
