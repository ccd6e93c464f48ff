# frozen_string_literal: true

require "json"
require "time"
require_relative "../../../exports/formats"
require_relative "../../../store/log"
require_relative "export_stream"
require_relative "log_row"
require_relative "../all/station"

module Bavard
  module Web
    # Everything that came in, with what became of it: searched, and taken away as a file.
    class LogApp < Station
      set :needs_to_see, :read
      FIELDS = %w[text person feed from to kind].freeze
      KEEP_DAYS = (1..3650)
      WRITTEN_WITHIN_S = 5

      get "/" do
        @here = "log"
        @given = fields(*FIELDS)
        search = search_of(@given)
        before_id = text(params["before"])[/\A\d{1,18}\z/]&.to_i
        found = log.page(@record.id, search, before_id)
        @older = found[Store::Log::PAGE - 1]&.line&.id if found.size > Store::Log::PAGE
        show_log(found.first(Store::Log::PAGE))
      rescue Error => error
        @error = error.message
        status error.status
        show_log([])
      end

      get "/export/:format" do
        format = Exports::FORMATS[text(params[:format])] || not_found
        search = search_of(fields(*FIELDS))
        content_type format::TYPE
        headers "content-disposition" => %(attachment; filename="#{format::NAME}")
        ExportStream.new(params[:format], @record.id, search, site.database_url)
      end

      post "/keep" do
        days = text(params["days"])[/\A\d{1,4}\z/]&.to_i
        raise Error.new("The log is kept from #{KEEP_DAYS.begin} to #{KEEP_DAYS.end} days.", field: "days") unless KEEP_DAYS.cover?(days)

        by = actor
        ask { |show| show.deed("keep", by, about: "#{days} days") } if site.stores.shows.keep_for(@record.id, days).positive?
        json(done: true)
      end

      # A viewer wants to be forgotten. Their name, typed once more, is what is asked for: it cannot be taken back.
      post "/erase" do
        need(:own)
        feed_id = id(params["feed"])
        login = text(params["login"])
        not_found unless site.stores.feeds.all_of_show(@record.id).any? { |feed| feed.id == feed_id }
        raise Error.new("To erase it, type “#{login}”.", field: "typed") unless login != "" && text(params["typed"]).strip == login

        by = actor
        ask { |show| show.moderation.erase(feed_id, login, by) }
        lines = written { site.stores.erasing.erase(@record.id, feed_id, login) }
        ask do |show|
          show.tallies.erase(login, show.now_ms)
          show.deed("erase", by, about: "#{lines} #{lines == 1 ? "line" : "lines"}")
        end
        json(lines:)
      end

      helpers do
        def log = Store::Log.new(site.db)

        # What was said last stands in the log by then: it would be written again behind it.
        #
        # @raise [Bavard::Busy]
        def written
          journal = ask(&:journal)
          return yield if journal.all_of?(@record.id, WRITTEN_WITHIN_S)

          raise Busy, "The log is still being written. Nothing of it was erased yet: try again in a moment."
        end

        # @return [Array<Store::Erasing::Writer>] who wrote as whoever is searched for, where that may be erased
        def writers
          name = present(@given["person"])&.delete_prefix("@")
          name && @visitor.may?(:own) ? site.stores.erasing.writers(@record.id, name) : []
        end

        def show_log(entries)
          @feeds = site.stores.feeds.all_of_show(@record.id).to_h { |feed| [feed.id, feed] }
          @rows = entries.map { |entry| LogRow.new(entry, @feeds[entry.line.feed_id]) }
          @writers = writers
          @keep_days = site.stores.shows.brief(@record.id).keep_days
          erb :log
        end

        # @raise [Bavard::Error]
        def search_of(given)
          feed_id = given["feed"][/\A\d{1,18}\z/]&.to_i
          kind = given["kind"] if Store::Log::KINDS.include?(given["kind"])
          Store::Log::Search.new(text: present(given["text"]), person: present(given["person"])&.delete_prefix("@"), feed_id:, kind:,
            from_ms: time_ms(given["from"], "from"), to_ms: time_ms(given["to"], "to"))
        end

        def present(words) = words.strip.then { |trimmed| trimmed.empty? ? nil : trimmed[0, 200] }

        # As the browser's own field writes it: "2026-11-24T05:30", in the time of the machine Bavard runs on.
        def time_ms(given, field)
          return if given.strip.empty?

          (Time.parse(given.strip).to_r * 1000).to_i
        rescue ArgumentError
          raise Error.new("A time is written as in 2026-11-24 05:30.", field:, value: given)
        end

        # The page's own query, with something else in it.
        def query(**more) = Rack::Utils.build_query(@given.reject { |_, value| value.to_s.empty? }.merge(more.transform_keys(&:to_s)))
      end
    end
  end
end
