# frozen_string_literal: true

require "json"
require_relative "../error"
require_relative "shows"
require_relative "stages"

module Bavard
  module Store
    # All rows of one show, table by table, written elsewhere and read in again as the show of another account. What is secret stays where it
    # is, and so do links, who helps, and where a feed was when it was heard last: links are made anew, and feeds wait to be connected.
    class WholeShow
      # of:: the column by which its rows belong to something, and what that is; refers:: columns that name rows of other tables;
      # without:: columns that are not taken along; known:: whether others name its rows by their id
      Table = Struct.new(:name, :of, :refers, :without, :known, keyword_init: true) do
        def initialize(refers: {}, without: [], known: false, **more) = super
      end
      OF_SHOW = %i[show_id shows].freeze
      # Each after those it names.
      TABLES = [
        Table.new(name: :descriptions, of: OF_SHOW, known: true),
        Table.new(name: :feeds, of: OF_SHOW, without: %i[secret permission_id cursor heard_at_ms heard_mark gap_from_ms gap_to_ms], known: true),
        Table.new(name: :stages, of: OF_SHOW, without: %i[token token_digest token_closed cleared_at_line], known: true),
        Table.new(name: :revisions, of: %i[stage_id stages]),
        Table.new(name: :shelves, of: OF_SHOW, refers: {feed_id: :feeds}, known: true),
        Table.new(name: :emotes, of: %i[shelf_id shelves]),
        Table.new(name: :emote_sets, of: OF_SHOW, refers: {feed_id: :feeds, shelf_id: :shelves}),
        Table.new(name: :phrases, of: OF_SHOW),
        Table.new(name: :badges, of: %i[feed_id feeds]),
        Table.new(name: :files, of: OF_SHOW),
        Table.new(name: :fellows, of: OF_SHOW),
        Table.new(name: :looks, of: OF_SHOW),
        Table.new(name: :cast_members, of: OF_SHOW),
        Table.new(name: :left_out, of: OF_SHOW, refers: {feed_id: :feeds})
      ].freeze
      # On request.
      LOG = [
        Table.new(name: :people, of: %i[feed_id feeds]),
        Table.new(name: :lines, of: OF_SHOW, refers: {feed_id: :feeds}, without: %i[search]),
        Table.new(name: :deeds, of: OF_SHOW)
      ].freeze
      # Whose ids are made of a time, or of what is in a file: the same wherever they are.
      OF_TIME = %i[lines deeds files].freeze
      OF_ITSELF = %i[name host_name gate keep_days cues lead small_leads].freeze
      AT_ONCE = 500
      # By what is in them: what is called otherwise would be looked for elsewhere than where files lie.
      FILE = /\A[0-9a-f]{32}\z/
      # Keys of documents under which ids of feeds stand.
      FEEDS = %w[feeds off_feeds].freeze
      # Feeds that things are sent to: where, is a link, and the key a secret.
      INBOX = "inbox"
      OWN_PLATFORM = /\Aown\.(\d+)\z/

      # @param db [Sequel::Database]
      # @param inbox [#call, nil] gives "address" and "secret" of a feed that things are sent to; where something is read in
      def initialize(db, inbox: nil)
        @db = db
        @inbox = inbox
      end

      # @param log [Boolean] whether what came in and what was done goes along
      # @return [Array<Symbol>] tables, in their order
      def tables(log) = (log ? TABLES + LOG : TABLES).map(&:name)

      # @return [Hash] what the show itself is
      # @raise [Bavard::Gone]
      def about(show_id)
        row = @db[:shows].where(id: show_id).select(*OF_ITSELF.map { |name| Sequel.cast(name, :text).as(name) }).first
        row&.transform_keys(&:to_s) || raise(Gone, "There is no show #{show_id}.")
      end

      # @yieldparam row [Hash] as JSON has it
      def each_row(show_id, name)
        table = table(name)
        column, of = table.of
        rows = @db[name].where(column => of == :shows ? show_id : @db[of].where(show_id:).select(:id))
        rows = rows.order(:id) if @db[name].columns.include?(:id)
        plain = rows.select(Sequel.function(:to_jsonb, Sequel[name]).as(:row))
        @db.transaction { plain.use_cursor.each { |found| yield bare(table, found[:row].to_hash) } }
      end

      # @param ids [Array<String>]
      # @return [Array<Hash>] rows of pictures that are there
      def pictures(ids) = ids.each_slice(AT_ONCE).flat_map { |some| @db[:pictures].where(id: some).all }

      # What an account's show becomes, which is empty until then. All of it, or nothing.
      #
      # @param about [Hash] as {#about}
      # @param pictures [Array<Hash>]
      # @yieldparam name [Symbol] of a table
      # @yieldreturn [Enumerable<Hash>] its rows, in the order in which they were told
      # @return [Hash{Symbol => Integer}] rows that were taken in, by table
      # @raise [Bavard::Error] where it does not fit
      def fill(show_id, about, pictures, names)
        @ids = Hash.new { |ids, name| ids[name] = {} }
        @db.transaction do
          insert(:pictures, pictures.select { |row| row["id"].to_s.match?(FILE) })
          counts = names.to_h { |name| [name, put(show_id, table(name), yield(name))] }
          itself(show_id, about)
          Shows.new(@db).find(show_id)
          counts
        end
      rescue Sequel::Error, JSON::ParserError, KeyError, TypeError, NoMethodError => error
        raise Error, "That copy does not fit: #{error.message.lines.first.to_s.strip[0, 200]}"
      end

      private

      def table(name) = (TABLES + LOG).find { |one| one.name == name } || raise(Error, "No table of a show is called #{name}.")

      def itself(show_id, about)
        row = OF_ITSELF.to_h { |name| [name, about[name.to_s]] }
        %i[gate cues lead small_leads].each { |name| row[name] = row[name] && Sequel.pg_jsonb_wrap(mapped(JSON.parse(row[name]))) }
        @db[:shows].where(id: show_id).update(row)
      end

      def put(show_id, table, rows)
        rows.each_slice(AT_ONCE).sum do |some|
          some = some.filter_map { |row| moved(show_id, table, row) }
          next insert(table.name, some) unless table.known

          some.each { |row| @ids[table.name][row["id"]] = insert_one(table.name, row.except("id")) }.size
        end
      end

      def bare(table, row)
        row = row.except(*table.without.map(&:to_s))
        row["address"] = row["address"].to_h.except("token") if table.name == :feeds && row["kind"] == INBOX
        row
      end

      # As it is in this show. One that belongs to what is not there is left out.
      def moved(show_id, table, row)
        column, of = table.of
        row = mapped(bare(table, row))
        owner = of == :shows ? show_id : @ids[of][row[column.to_s]]
        return unless owner

        table.refers.each { |name, other| row[name.to_s] &&= @ids[other][row[name.to_s]] || (return nil) }
        fresh(table, row.merge(column.to_s => owner))
      end

      def fresh(table, row)
        case table.name
        when :stages then row.merge("token" => Stages.new_token, "draft" => Stages.checked(row["draft"]), "cleared_at_line" => 0)
        when :revisions then row.merge("document" => Stages.checked(row["document"]))
        when :files then row if row["id"].to_s.match?(FILE)
        when :feeds then feed(row)
        else table.known || OF_TIME.include?(table.name) ? row : row.except("id")
        end
      end

      def feed(row)
        row = row.merge("wanted" => false, "platform" => own_platform(row["platform"]))
        return row unless row["kind"] == INBOX

        row.merge(@inbox.call) { |name, before, new| name == "address" ? before.merge(new) : new }
      end

      # A platform that the host described goes by the number of its description.
      def own_platform(key) = key.to_s.match?(OWN_PLATFORM) ? "own.#{@ids[:descriptions][key[OWN_PLATFORM, 1].to_i]}" : key

      # Ids of feeds, wherever a document names them.
      def mapped(value)
        case value
        when Hash then value.to_h { |key, one| [key, FEEDS.include?(key) && one.is_a?(Array) ? feeds(one) : mapped(one)] }
        when Array then value.map { |one| mapped(one) }
        else value
        end
      end

      def feeds(ids) = ids.filter_map { |id| @ids[:feeds][id.to_i]&.then { |new| id.is_a?(String) ? new.to_s : new } }

      def insert_one(name, row) = @db.fetch("#{insertion(name, row.keys)} RETURNING id", JSON.generate([row])).get

      # @return [Integer] how many were not there yet
      def insert(name, rows)
        return 0 if rows.empty?

        @db["#{insertion(name, rows.first.keys)} ON CONFLICT DO NOTHING", JSON.generate(rows)].update
      end

      # Names are those of columns, whatever the file says.
      def insertion(name, keys)
        columns = @db[name].columns.select { |column| keys.map(&:to_s).include?(column.to_s) }.map { |column| @db.literal(column) }.join(", ")
        "INSERT INTO #{@db.literal(name)} (#{columns}) SELECT #{columns} FROM jsonb_populate_recordset(NULL::#{@db.literal(name)}, ?)"
      end
    end
  end
end
