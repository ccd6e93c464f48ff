# frozen_string_literal: true

require "sequel"

module Bavard
  module Store
    # What whoever runs Bavard did, and who came in: by name, for accounts go and this stays.
    class OperatorDeeds
      Deed = Struct.new(:id, :at_ms, :by, :what, :about, :detail, keyword_init: true) do
        # @return [String]
        def words = WORDS.fetch(what, what)
      end
      WORDS = {
        "make" => "made an account for", "invite" => "invited", "take_back" => "took back the invitation of", "close" => "closed the account of",
        "reopen" => "opened the account again of", "remove" => "removed the account of", "sign_out" => "signed out everywhere",
        "password" => "set a new password for", "one_factor" => "took the second factor away from", "appoint" => "made an operator of",
        "dismiss" => "took the operator's rights from", "move" => "moved",
        "ceilings" => "set what may have", "collect" => "collected files that nobody uses",
        "copy" => "copied the show", "bring" => "brought a show for", "backup" => "backed up",
        "restore" => "restored", "signed_in" => "signed in", "made" => "made an account",
        "kept_out" => "was kept waiting after many tries"
      }.freeze
      KEPT_MS = 400 * 86_400 * 1000
      LONGEST = 200

      # @param clock [#call] Unix milliseconds
      def initialize(db, clock)
        @db = db
        @clock = clock
      end

      # @param what [String] one of WORDS
      # @param by [String] an address, or what it was done with
      # @param about [String] whom or what it was done to
      def note(what, by:, about: "", detail: {})
        WORDS.fetch(what)
        @db[:operator_deeds].insert(at_ms: @clock.call, by: by[0, LONGEST], what:, about: about[0, LONGEST], detail: Sequel.pg_jsonb(detail))
      end

      # The same of the same person once in a while at most.
      def note_now_and_then(what, by:, every_ms:, **more)
        lately = @db[:operator_deeds].where(what:, by: by[0, LONGEST]).where(Sequel[:at_ms] > @clock.call - every_ms)
        note(what, by:, **more) if lately.empty?
      end

      # @return [Array<Deed>] the newest first
      def latest(most = 200)
        @db[:operator_deeds].reverse(:id).limit(most).map { |row| Deed.new(**row, detail: row[:detail].to_hash) }
      end

      # Takes away what is older than {KEPT_MS}.
      def sweep = @db[:operator_deeds].where(Sequel[:at_ms] < @clock.call - KEPT_MS).delete
    end
  end
end
