# frozen_string_literal: true

require "json"
require_relative "../core/chat/fragments"
require_relative "../core/chat/line"
require_relative "../core/chat/person"
require_relative "../core/gate/edits"
require_relative "../core/gate/verdict"
require_relative "line_detail"
require_relative "people"

module Bavard
  module Store
    # The log of lines with their verdicts.
    class Lines
      # aired:: whether it went on an on-air stage; pulled:: whether it was taken away; held:: whether it waits to go there; deleted:: whether
      # its platform took it away
      # trace:: the steps it took: [name of the step, Unix milliseconds, what came of it]
      Entry = Struct.new(:line, :verdict, :aired, :pulled, :trace, :held, :deleted)
      MINUTE_MS = 60_000
      # Lines of somebody who is forgotten: see {Erasing}.
      ERASED = {login: "", display_name: Core::Chat::Person::ERASED}.freeze
      CHAT = %w[said action reply paid].freeze
      COLUMNS = {
        id: "bigint", show_id: "bigint", feed_id: "bigint", platform_id: "text", login: "text", display_name: "text", colour: "text", badges: "jsonb",
        kind: "text", text: "text", arrived_at_ms: "bigint", platform_time_ms: "bigint", shown_at_ms: "bigint", action: "text", rule: "text",
        seen: "text", aired: "boolean", pulled: "boolean", held: "boolean", deleted: "boolean", detail: "jsonb", trace: "jsonb"
      }.freeze
      # What a line is made of, whatever became of it. Most have no badges and no detail, and documents are slow to read.
      SAID = [:id, :feed_id, :platform_id, :login, :display_name, :colour, :kind, :text, :arrived_at_ms, :platform_time_ms, :shown_at_ms,
        Sequel.as(Sequel.function(:nullif, :badges, Sequel.cast("[]", :jsonb)), :badges),
        Sequel.as(Sequel.function(:nullif, :detail, Sequel.cast("{}", :jsonb)), :detail)].freeze
      NO_DETAIL = {}.freeze
      NONE = [].freeze
      # And where it was left: of one that was on air nobody asks by which steps.
      LEFT = [*SAID, :action, :rule, :seen, :aired, :pulled, :held, :deleted, Sequel.case({aired: nil}, :trace).as(:trace)].freeze
      # Of a row that an earlier version put into a file.
      OTHERWISE = {deleted: "coalesce(deleted, false)"}.freeze
      ADD = "INSERT INTO lines (#{COLUMNS.keys.join(", ")}) SELECT #{COLUMNS.keys.map { |name| OTHERWISE.fetch(name, name) }.join(", ")} FROM " \
            "json_to_recordset(?) AS row(#{COLUMNS.map { |name, type| "#{name} #{type}" }.join(", ")}) ON CONFLICT DO NOTHING".freeze

      # What is there already came before, as where a process was killed between writing and forgetting it.
      NEW_STEPS = "(SELECT coalesce(jsonb_agg(step), '[]') FROM jsonb_array_elements(coalesce(row.steps, '[]')) AS step " \
                  "WHERE NOT lines.trace @> jsonb_build_array(step))"
      ADD_STEPS = "UPDATE lines SET trace = trace || #{NEW_STEPS} " \
                  "FROM json_to_recordset(?) AS row(id bigint, steps jsonb) WHERE lines.id = row.id".freeze
      EDITED = "trace || jsonb_build_array(jsonb_build_array('edited', CAST(? AS bigint), coalesce(?, text)))"
      # steps:: as Entry's trace; held:: whether it waits from now on
      Outcome = Struct.new(:id, :aired, :pulled, :steps, :shown_at_ms, :held)
      SETTLE = "UPDATE lines SET held = coalesce(row.held, false), aired = lines.aired OR row.aired, pulled = lines.pulled OR row.pulled, " \
               "trace = trace || #{NEW_STEPS}, shown_at_ms = row.shown_at_ms " \
               "FROM json_to_recordset(?) AS row(id bigint, aired boolean, pulled boolean, steps jsonb, shown_at_ms bigint, held boolean) " \
               "WHERE lines.id = row.id".freeze

      def initialize(db)
        @db = db
        @people = People.new(db)
      end

      # Written in one go, as one document that PostgreSQL takes apart: putting each value into the statement by itself
      # would take several times as long, and a busy chat would outrun the log.
      #
      # @param show_id [Integer]
      # @param entries [Array<Entry>] a line that is there already stays as it was
      def add(show_id, entries) = add_rows(entries.map { |entry| row(show_id, entry) })

      # @param rows [Array<Hash>] as {#row} gives them
      def add_rows(rows)
        @db[ADD, JSON.generate(rows)].insert
        @people.heard(rows)
      end

      # @param entry [Entry]
      # @return [Hash] plain data: what is kept of it
      def row(show_id, entry)
        line = entry.line
        person = line.person
        {id: line.id, show_id:, feed_id: line.feed_id, platform_id: line.platform_id, login: person.login,
         display_name: person.display_name, colour: person.colour, badges: person.badges, kind: line.kind.to_s,
         text: line.text, arrived_at_ms: line.arrived_at_ms, platform_time_ms: line.platform_time_ms,
         shown_at_ms: line.shown_at_ms, action: entry.verdict.action.to_s, rule: entry.verdict.rule, seen: entry.verdict.seen,
         aired: entry.aired, pulled: entry.pulled, held: entry.held || false, deleted: entry.deleted || false,
         detail: LineDetail.of(line, entry.verdict.shown), trace: entry.trace || []}
      end

      # What became of lines that were on their way: aired or not, pulled or not, with the steps that came to their trace.
      #
      # @param outcomes [Array<Outcome, Hash>] in their order; of one line there may be several
      def settle(outcomes)
        rows = outcomes.map { |outcome| outcome.to_h.transform_keys(&:to_sym) }.group_by { |row| row[:id] }.each_value.map { |same| in_all(same) }
        @db[SETTLE, JSON.generate(rows)].update
      end

      # @param steps [Hash{Integer => Array}] what came to traces, by line
      def add_steps(steps)
        @db[ADD_STEPS, JSON.generate(steps.map { |id, more| {id:, steps: more} })].update
      end

      # @return [Array<Entry>] lines that were held when this was last written, oldest first; of what was on air without its trace
      def held(show_id)
        read_all(@db[:lines].where(show_id:, held: true, pulled: false).order(:id).select(*LEFT).all)
      end

      # It is not taken away any more, whoever did it.
      #
      # @param mark [Integer] grows with time: an earlier one, which comes later by another way, does nothing
      def put_back(line_id, mark = nil) = mark(@db[:lines].where(id: line_id), mark, pulled: false, deleted: false)

      # Somebody takes it away.
      #
      # @param mark [Integer]
      def pull_line(line_id, mark = nil) = mark(@db[:lines].where(id: line_id), mark, pulled: true, deleted: false)

      # @return [Array<Entry>] lines and events before one, oldest first
      def before(show_id, id, count)
        @db[:lines].where(show_id:).where { Sequel[:id] < id }.reverse(:id).limit(count).all.reverse.then { |rows| read_all(rows) }
      end

      # @return [Entry, nil]
      def find(show_id, id)
        row = @db[:lines].first(show_id:, id:)
        row && read(row)
      end

      # Its platform deleted it.
      #
      # @param mark [Integer]
      def pull(feed_id, platform_id, mark = nil) = mark(@db[:lines].where(feed_id:, platform_id:), mark, pulled: true, deleted: true)

      # Its writer changed a line: what it said before stands in its trace, once.
      #
      # @param said [Array(Integer, String, String)] its feed, its platform id, and whose it has to be, or nil
      # @param before [String, nil] what it said, where that is known: it may be written only now, as it is since
      def edit(said, text, at_ms, before = nil)
        lines = @db[:lines].where(%i[feed_id platform_id login].zip(said).to_h.compact).exclude(ERASED)
        other = Sequel.~(text:)
        other |= Sequel.~(Sequel.lit("trace @> ?", Sequel.pg_jsonb([["edited", at_ms, before]]))) if before && before != text
        lines.where(other).update(text:, trace: Sequel.lit(EDITED, at_ms, before))
      end

      # Its platform deleted what a person said, or everything where login is nil.
      def pull_all(feed_id, login, up_to_id)
        said = @db[:lines].where(feed_id:, deleted: false) { id <= up_to_id }
        said = said.where(login:) if login
        mark(said, up_to_id, pulled: true, deleted: true)
      end

      # @return [Array<Entry>] the newest chat lines, oldest first; of what was on air without its trace
      def latest(show_id, count)
        @db[:lines].where(show_id:, kind: CHAT).reverse(:id).limit(count).select(*LEFT).all.reverse.then { |rows| read_all(rows) }
      end

      # Counted where they lie: an hour of a busy chat is too much to be carried here.
      #
      # @return [Array<Array(Integer, Boolean, Boolean, String, Integer)>] of lines since then, minute by minute: when the last of them arrived,
      #   whether they were dropped, whether aired, by which rule, and how many
      def counts_since(show_id, arrived_at_ms)
        minute = Sequel.lit("arrived_at_ms / ?", MINUTE_MS)
        of = [Sequel.lit("action = 'drop'"), :aired, :rule]
        @db[:lines].where(show_id:).where { id >= arrived_at_ms * 1000 }.group(minute, *of).order(minute)
          .select_map([Sequel.as(Sequel.function(:max, :arrived_at_ms), :last), Sequel.as(of.first, :dropped), *of.drop(1),
            Sequel.function(:count).*.as(:times)])
      end

      # @return [Integer] of one show, 0 where there is none
      def last_id_of(show_id) = @db[:lines].where(show_id:).max(:id) || 0

      # @return [Integer] 0 where there is none
      def last_id
        @db[:lines].max(:id) || 0
      end

      # @return [Array<String>] platform ids of the newest lines of a feed, oldest first
      def recent_platform_ids(feed_id, count)
        @db[:lines].where(feed_id:).exclude(platform_id: nil).reverse(:id).limit(count).select_map(:platform_id).reverse
      end

      # @param row [Hash] of the table
      # @return [Entry]
      def read(row) = read_all([row]).first

      # @param rows [Array<Hash>] of the table
      # @return [Array<Entry>] whoever wrote several of them is one person in all of them
      def read_all(rows)
        people = {}
        rows.map { |row| entry(row, row[:detail] || NO_DETAIL, people) }
      end

      # @param rows [Array<Hash>] of the table, the columns of SAID alone
      # @return [Array<Core::Chat::Line>] as in {#read_all}
      def said(rows)
        people = {}
        rows.map { |row| line(row, row[:detail] || NO_DETAIL, people) }
      end

      # Whatever is written meanwhile is written as a whole, or not at all.
      def as_a_whole(&block) = @db.transaction(&block)

      private

      # Of several rows for one line the database would take any one.
      def in_all(same)
        aired, pulled = %i[aired pulled].map { |what| same.any? { |row| row[what] } }
        same.last.merge(aired:, pulled:, steps: same.flat_map { |row| row[:steps].to_a })
      end

      # @param mark [Integer, nil] nil: of an earlier version, in whose order they came
      def mark(lines, mark, **what)
        return lines.update(**what) unless mark

        lines.where { marked < mark }.update(**what, marked: mark)
      end

      def entry(row, detail, people)
        trace = row[:trace]&.to_a || NONE
        Entry.new(line(row, detail, people), verdict(row, detail["shown"]), row[:aired], row[:pulled], trace, row[:held], row[:deleted])
      end

      def line(row, detail, people)
        # Its feed remembers the same word.
        line = Core::Chat::Line.new(row[:id], row[:feed_id], row[:platform_id]&.-@, person(row, detail, people), row[:kind].to_sym, row[:text],
          Core::Chat::Line::PLAIN, row[:arrived_at_ms], row[:platform_time_ms], row[:shown_at_ms], :feed, Core::Chat::Line::NONE)
        LineDetail.read(detail, line)
      end

      # Most went by as they came.
      def verdict(row, shown)
        return Core::Gate::PASS if shown.nil? && row[:action] == "pass" && row[:rule].nil? && row[:seen].nil?

        Core::Gate::Verdict.new(row[:action].to_sym, row[:rule], row[:seen], [].freeze, shown && Core::Gate::Shown.new(*shown))
      end

      def person(row, detail, people)
        of = row.values_at(:feed_id, :login, :display_name, :colour, :badges)
        of.push(*detail.values_at("avatar", "badge_pictures")) unless detail.empty?
        people[of] ||= Core::Chat::Person.new(*of.first(4), of[4]&.to_a || NONE, avatar: of[5], badge_pictures: of[6])
      end
    end
  end
end
