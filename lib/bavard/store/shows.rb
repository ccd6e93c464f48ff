# frozen_string_literal: true

require_relative "../core/cues/settings"
require_relative "../core/gate/settings"

module Bavard
  module Store
    # Shows as they are kept: one for each account, until there are more.
    class Shows
      # gate:: the document of Core::Gate::Settings; keep_days:: how long its log is kept; cues:: of Core::Cues::Settings; lead:: how far it
      #   has come on its way to the picture (left, began_ms, done: by step of Core::Lead::Steps), nil: it needs to be led nowhere; small_leads::
      #   what was seen (done: by step, or over) of each of Core::Lead::SmallSteps
      Show = Struct.new(:id, :account_id, :name, :host_name, :gate, :keep_days, :cues, :lead, :small_leads, keyword_init: true)

      # What is known of a show without its long documents, which take longer to read than all else of a request: for everybody who comes.
      Brief = Struct.new(:id, :account_id, :name, :host_name, :keep_days, :lead, :small_leads, keyword_init: true)

      def initialize(db)
        @db = db
      end

      # @param lead [Hash, nil] {} where its host is to be led
      # @return [Show] an empty one, with the gate's rules as they come
      def create(account_id, name:, host_name:, lead: nil)
        led = lead ? {lead: Sequel.pg_jsonb(lead)} : {}
        id = @db[:shows].insert(account_id:, name:, host_name:, gate: Sequel.pg_jsonb(Core::Gate::Settings::DEFAULT), **led)
        find(id)
      end

      # @return [Show, nil]
      def find(id)
        read(@db[:shows].first(id:))
      end

      # @return [Show, nil]
      def of_account(account_id)
        read(@db[:shows].first(account_id:))
      end

      # @return [Brief, nil]
      def brief(id) = in_brief(@db[:shows].where(id:))

      # @return [Brief, nil]
      def brief_of_account(account_id) = in_brief(@db[:shows].where(account_id:))

      # @return [Array<Integer>] of all, also of closed accounts
      def ids
        @db[:shows].order(:id).select_map(:id)
      end

      # @return [Array<Integer>] of those that may run
      def open_ids = open.select_map(Sequel[:shows][:id])

      # @return [Boolean] whether it is there, and its account is not closed
      def open?(id) = !open.where(Sequel[:shows][:id] => id).empty?

      # Those with feeds that are wanted, in the order in which a start brings them back.
      #
      # @return [Array<Integer>] those on air first, then those that were heard last
      def ids_by_need
        wanted = @db[:feeds].where(removed_at_ms: nil, wanted: true).group(:show_id).select(:show_id, Sequel.function(:max, :heard_at_ms).as(:heard))
        cues = Sequel.pg_jsonb_op(:cues)
        on_air = Sequel.expr(cues.get_text("ended_ms") => nil) & Sequel.~(cues.get_text("began_ms") => nil)
        found = open.join(wanted, show_id: Sequel[:shows][:id])
        found.order(Sequel.desc(on_air), Sequel.desc(:heard, nulls: :last), Sequel[:shows][:id]).select_map(Sequel[:shows][:id])
      end

      def rename(id, name:, host_name:)
        @db[:shows].where(id:).update(name:, host_name:)
      end

      # @param days [Integer] how long the log is kept
      # @return [Integer] 0 where it was that already
      def keep_for(id, days)
        @db[:shows].where(id:).exclude(keep_days: days).update(keep_days: days)
      end

      # @param document [Hash] as Core::Gate::Settings reads it
      def keep_gate(id, document)
        @db[:shows].where(id:).update(gate: Sequel.pg_jsonb(document))
      end

      # @param document [Hash] as Core::Cues::Settings reads it
      def keep_cues(id, document)
        @db[:shows].where(id:).update(cues: Sequel.pg_jsonb(document))
      end

      # @param lead [Hash, nil]
      def keep_lead(id, lead)
        @db[:shows].where(id:).update(lead: lead && Sequel.pg_jsonb(lead))
      end

      # @param leads [Hash]
      def keep_small_leads(id, leads)
        @db[:shows].where(id:).update(small_leads: Sequel.pg_jsonb(leads))
      end

      private

      def open = @db[:shows].join(:accounts, id: :account_id).where(closed_at_ms: nil)

      def read(row)
        row && Show.new(**row.slice(*Show.members), gate: Core::Gate::Settings.read(plain(row[:gate])), cues: Core::Cues::Settings.read(plain(row[:cues])),
          lead: plain(row[:lead]), small_leads: plain(row[:small_leads]))
      end

      def in_brief(rows)
        row = rows.select(*Brief.members).first
        row && Brief.new(**row, lead: plain(row[:lead]), small_leads: plain(row[:small_leads]))
      end

      def plain(kept) = kept && JSON.parse(JSON.generate(kept))
    end
  end
end
