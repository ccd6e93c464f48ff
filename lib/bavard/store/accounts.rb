# frozen_string_literal: true

require "argon2"
require "securerandom"
require_relative "../error"
require_relative "link_keys"
require_relative "operator_deeds"
require_relative "shows"

module Bavard
  module Store
    # Accounts, as whoever runs Bavard sees to them. What they do is written down with who and when, also of accounts that are gone.
    class Accounts
      # closed_at_ms:: since when it is closed, or nil; last_use:: Time, or nil; places:: browsers that are signed in
      # shows:: [Integer, String] each: ids and names of those that are theirs
      Kept = Struct.new(:id, :email, :operator, :closed_at_ms, :created_at, :last_use, :places, :second_factor, :shows, keyword_init: true)
      Invitation = Struct.new(:id, :name, :token, :made_at_ms, keyword_init: true)
      ADDRESS = /\A[^@\s]{1,64}@[^@\s]{1,190}\z/
      LETTERS = 20
      # As the pages hash passwords.
      COST = {t_cost: 2, m_cost: 16}.freeze
      INVITED_FOR_MS = 7 * 86_400 * 1000
      TOKEN_BYTES = 24
      LONGEST_NAME = 80

      # @return [OperatorDeeds]
      attr_reader :deeds

      # @param clock [#call] Unix milliseconds
      def initialize(db, clock: -> { Process.clock_gettime(Process::CLOCK_REALTIME, :millisecond) })
        @db = db
        @clock = clock
        @deeds = OperatorDeeds.new(db, clock)
      end

      # @return [Array<Kept>] by address
      def all
        shows = @db[:shows].order(:id).select_map(%i[account_id id name]).group_by(&:first)
        places = @db[:account_active_session_keys].group(:account_id).select(:account_id, Sequel.function(:count).*.as(:places),
          Sequel.function(:max, :last_use).as(:last_use)).to_hash(:account_id)
        factors = @db[:account_otp_keys].select_map(:id)
        @db[:accounts].order(:email).map do |row|
          place = places.fetch(row[:id], {})
          Kept.new(**row.slice(:id, :email, :operator, :closed_at_ms, :created_at), last_use: place[:last_use], places: place[:places].to_i,
            second_factor: factors.include?(row[:id]), shows: shows.fetch(row[:id], []).map { |_, *show| show })
        end
      end

      # @param email [String]
      # @return [Hash] its row
      # @raise [Bavard::Gone]
      def by_email(email) = @db[:accounts].first(email: email.to_s) || raise(Gone, "Nobody has an account with #{email.to_s[0, LONGEST_NAME]}.")

      # @return [Hash] its row
      # @raise [Bavard::Gone]
      def row(id) = @db[:accounts].first(id:) || raise(Gone.new("There is no such account any more.", field: "account", value: id))

      def operator?(id) = @db[:accounts].where(id:, closed_at_ms: nil).get(:operator) == true
      def closed?(id) = !@db[:accounts].where(id:).exclude(closed_at_ms: nil).empty?

      # @return [String] the word they sign in with
      # @raise [Bavard::Error]
      def make(email, show, by:, operator: false)
        raise Error.new("An account goes by an e-mail address.", field: "email") unless email.to_s.match?(ADDRESS)
        raise Conflict.new("#{email} has an account already.", field: "email") if @db[:accounts].where(email:).any?

        name = show.to_s.strip
        word = SecureRandom.alphanumeric(LETTERS)
        @db.transaction do
          id = @db[:accounts].insert(email:, password_hash: hash(word), operator:)
          Shows.new(@db).create(id, name: name.empty? ? "My show" : name[0, LONGEST_NAME], host_name: email[/\A[^@]+/], lead: {})
          deeds.note("make", by:, about: email)
        end
        word
      end

      # @param name [String] whom it is for, as the operator remembers them
      # @return [Invitation] with its token, which is seen this once
      def invite(name, by:)
        name = name.to_s.strip[0, LONGEST_NAME]
        raise Error.new("Say whom the invitation is for.", field: "name") if name.empty?

        token = SecureRandom.urlsafe_base64(TOKEN_BYTES)
        id = @db[:account_invitations].insert(token_digest: LinkKeys.digest(token), name:, made_at_ms: @clock.call)
        deeds.note("invite", by:, about: name)
        Invitation.new(id:, name:, token:)
      end

      # @return [Array<Invitation>] those that were not used yet; what is older than a week is thrown away
      def invitations
        @db[:account_invitations].where(Sequel[:made_at_ms] < @clock.call - INVITED_FOR_MS).delete
        fresh.order(:id).map { |row| Invitation.new(**row.slice(:id, :name, :made_at_ms)) }
      end

      # @return [Boolean]
      def invited?(token) = fresh.where(token_digest: LinkKeys.digest(token)).any?

      # @return [Boolean] whether it was there; it works once
      def take_up(token) = fresh.where(token_digest: LinkKeys.digest(token)).delete.positive?

      def take_back(id, by:)
        name = @db[:account_invitations].where(id:).get(:name) or return
        @db[:account_invitations].where(id:).delete
        deeds.note("take_back", by:, about: name)
      end

      # Nobody signs in with it from now on, whoever did is signed out, and its show does not run.
      def close(id, by:)
        done(id, "close", by) do |account|
          account.where(closed_at_ms: nil).update(closed_at_ms: @clock.call)
          end_sessions(id)
        end
      end

      def reopen(id, by:) = done(id, "reopen", by) { |account| account.update(closed_at_ms: nil) }

      # With everything that is theirs. Files that nobody else has go when files are collected.
      def remove(id, by:)
        shows = @db[:shows].where(account_id: id).select_map(:name)
        done(id, "remove", by, "shows" => shows, &:delete)
      end

      # Everywhere.
      def sign_out(id, by:) = done(id, "sign_out", by) { end_sessions(id) }

      # @return [String] the word they sign in with from now on; they are signed out everywhere
      def new_password(id, by:)
        word = SecureRandom.alphanumeric(LETTERS)
        done(id, "password", by) do |account|
          account.update(password_hash: hash(word))
          end_sessions(id)
          @db[:account_password_reset_keys].where(id:).delete
        end
        word
      end

      # Where app and recovery codes are lost.
      def one_factor(id, by:)
        done(id, "one_factor", by) do
          @db[:account_otp_keys].where(id:).delete
          @db[:account_recovery_codes].where(id:).delete
        end
      end

      # @param operator [Boolean] whether they see to accounts from now on
      def appoint(id, operator, by:) = done(id, operator ? "appoint" : "dismiss", by) { |account| account.update(operator:) }

      private

      def done(id, what, by, detail = {})
        email = row(id)[:email]
        @db.transaction do
          yield @db[:accounts].where(id:)
          deeds.note(what, by:, about: email, detail:)
        end
      end

      def end_sessions(id) = @db[:account_active_session_keys].where(account_id: id).delete
      def fresh = @db[:account_invitations].where(Sequel[:made_at_ms] >= @clock.call - INVITED_FOR_MS)
      def hash(word) = Argon2::Password.new(COST).create(word)
    end
  end
end
