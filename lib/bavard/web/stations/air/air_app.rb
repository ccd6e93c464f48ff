# frozen_string_literal: true

require_relative "../../../core/figures/spread"
require_relative "../../../core/pieces/link_options"
require_relative "../../../exports/report_csv"
require_relative "../../../store/report"
require_relative "../all/station"
require_relative "air_checks"
require_relative "report_span"
require_relative "report_words"

module Bavard
  module Web
    # Links, and the screens that show them.
    class AirApp < Station
      # Seconds without a word after which chat leaves a screen, in words.
      DOUBTS = {"5" => "5 s", "15" => "15 s", "30" => "30 s", "60" => "a minute", "300" => "5 minutes", "" => "never"}.freeze

      get "/" do
        @here = "air"
        @stages, @feeds = ask { |show| [show.desks.values.map { |desk| desk.stage.dup }, show.lanes.values.map(&:feed)] }
        erb :air
      end

      post "/:stage/test" do
        stage_id = id(params[:stage])
        count = text(params["count"])[/\A\d{1,3}\z/]&.to_i || 1
        said = {name: text(params["name"]), text: text(params["text"]), draft_only: params["into"] == "draft"}
        feed = text(params["feed"])
        json(sent: ask do |show|
          # Gone, where there is no such feed.
          feed_id = feed.empty? ? nil : show.lane(id(feed)).feed.id
          show.desk(stage_id).send_test(count, show.now_ms, feed_id:, **said)
        end)
      end

      post "/:stage/clear" do
        stage_id = id(params[:stage])
        ask { |show| show.clear_air(stage_id) }
        json(done: true)
      end

      post "/:stage/doubt" do
        stage_id = id(params[:stage])
        given = text(params["seconds"])
        raise Error.new("That is none of the times there are.", field: "seconds") unless DOUBTS.key?(given)

        ask { |show| show.desk(stage_id).doubt_s = given[/\d+/]&.to_i }
        json(done: true)
      end

      post "/:stage/new-link" do
        stage_id = id(params[:stage])
        json(link: link(ask { |show| show.desk(stage_id).renew_link }))
      end

      # How long lines of the last ten minutes took to a screen.
      get "/times" do
        times, hold_ms = ask { |show| [show.screen_times.of_late(show.now_ms), show.gatehouse.hold_settings.ms] }
        json(Core::Figures::Spread.of(times).to_h.merge(hold_ms:))
      end

      # What is looked at before a broadcast.
      get "/checks" do
        known = ask { |show| [show.checking.facts(show.now_ms), show.checking.aired(show.now_ms), show.checking.used] }
        json(checks: AirChecks.new(site, *known).report)
      end

      # What a broadcast came to: the last one, or what else is asked for.
      get "/report" do
        @here = "report"
        @given = fields("from", "to")
        @sheet = report
        erb :report
      rescue Error => error
        @error = error.message
        status error.status
        erb :report
      end

      get "/report/:format" do
        case text(params[:format])
        when "json" then taken_away("application/json", "broadcast.json", JSON.pretty_generate(report.to_h))
        when "csv" then taken_away(Exports::ReportCsv::TYPE, Exports::ReportCsv::NAME, Exports::ReportCsv.of(report))
        else not_found
        end
      end

      # What the options in a link mean.
      get "/options" do
        read = Core::Pieces::LinkOptions.read(Rack::Utils.parse_query(text(params["options"]).delete_prefix("?")))
        words = option_words(read.properties) + read.of.flat_map { |piece, properties| option_words(properties).map { |said| "#{piece}: #{said}" } }
        words << "only #{read.pieces.join(", ")}" if read.pieces.any?
        json(understood: words, not_understood: read.not_understood)
      rescue ArgumentError
        json(understood: [], not_understood: [text(params["options"])[0, 60]])
      end

      helpers ReportWords

      helpers do
        def option_words(properties)
          properties.map { |name, value| Core::Pieces::ChatPiece.properties.fetch(name).then { |property| "#{property.label}: #{property.write(value)}" } }
        end

        # @return [Core::Report::Sheet]
        def report
          counts = Store::Report.new(site.db)
          span, notes = span_and_notes(counts)
          @given = span.given
          names = site.stores.feeds.all_of_show(@record.id).to_h { |feed| [feed.id, feed.name] }
          Core::Report::Sheet.new(counts.between(@record.id, span.from_ms, span.to_ms, names), notes)
        end

        def span_and_notes(counts)
          began_ms, ended_ms, now_ms, notes = ask { |show| [*show.cues.document.values_at("began_ms", "ended_ms"), show.now_ms, show.notes.report] }
          began_ms ||= counts.first_since(@record.id, now_ms - ReportSpan::OTHERWISE_MS)
          [ReportSpan.read(params["from"], params["to"], began_ms:, ended_ms:, now_ms:), notes]
        end

        def taken_away(type, name, body)
          content_type type
          headers "content-disposition" => %(attachment; filename="#{name}")
          body
        end

        def link(token) = "#{request.base_url}/air/#{token}"
      end
    end
  end
end
