# frozen_string_literal: true

require_relative "../../../core/reading/speech"
require_relative "../../../core/rights"
require_relative "../../../store/lines"
require_relative "../../../store/log"
require_relative "../../../media/espeak"
require_relative "../log/trace"
require_relative "../../links/microphone_app"

module Bavard
  module Web
    # What a prompter asks for, whichever way it was opened: signed in, or by a link of its own. An app that takes this in says
    # show, show_id, actor and may?(what).
    module PrompterDoor
      OLDER = 200
      FOUND = 60
      PERSON_LINES = 40
      MINUTE_MS = 60_000
      # Over a game: what its link may say, within which bounds, and what it is otherwise.
      OVER = {"size" => [12..60, 20], "ground" => [0..100, 0]}.freeze

      # What is done to a line or a person: which rights it takes is the same for all.
      ACTS = {
        "pull" => ->(show, given, by) { show.pull_line(given.line, by) },
        "let_go" => ->(show, given, by) { show.let_line_go(given.line, by) },
        "pin" => ->(show, given, by) { show.pin_line(given.line, true, by) },
        "unpin" => ->(show, given, by) { show.pin_line(given.line, false, by) },
        "large" => ->(show, given, by) { show.enlarge(given.line, by) },
        "small" => ->(show, _given, by) { show.enlarge(nil, by) },
        "read" => ->(show, given, by) { show.mark_line(given.line, "read", given.on, by) },
        "answered" => ->(show, given, by) { show.mark_line(given.line, "answered", given.on, by) },
        "leave_out" => lambda { |show, given, by|
          show.leave_out(given.name, by, feed_id: given.feed, until_ms: given.minutes && (show.now_ms + (given.minutes * MINUTE_MS)))
        },
        "take_back" => ->(show, given, by) { show.take_back(given.name, by, feed_id: given.feed) },
        "note" => ->(show, given, by) { show.note_person(given.feed, given.name, given.text, by) },
        **%w[cue_skip cue_pause cue_go_on cue_play cue_off].to_h { |what| [what, ->(show, given, by) { show.direct_cues(what, given.line, by) }] },
        "cue_own" => ->(show, given, by) { show.play_own(given.text, by) },
        "shout_out" => ->(show, given, by) { show.introduce(given.line, by) },
        "undo" => ->(show, given, by) { show.undo_deed(given.deed, by) }
      }.freeze
      Given = Struct.new(:line, :name, :feed, :minutes, :on, :text, :deed)

      def self.registered(app)
        reading(app)
        tracing(app)
        looking_up(app)
        speaking(app)
        acting(app)
        answering(app)
      end

      def self.reading(app)
        app.get("/feeds") do
          json(feeds_told)
        end

        app.get("/lines") do
          before = id(params["before"])
          json(lines: cards(site.stores.lines.before(show_id, before, OLDER)))
        end

        app.get("/find") do
          json(lines: cards(found(text(params["text"]), text(params["person"]))))
        end
      end

      def self.tracing(app)
        app.get("/trace/:line") do
          entry = site.stores.lines.find(show_id, id(params[:line])) || not_found
          json(trace(entry))
        end
      end

      # People of the log, and what was done about them.
      def self.looking_up(app)
        app.get("/people") do
          letters = text(params["name"]).strip.delete_prefix("@")[0, 60]
          json(people: site.stores.known.search(show_id, letters).map { |known| person(known) })
        end

        app.get("/person") do
          known = site.stores.known.find(show_id, id(params["feed"]), text(params["login"])) || not_found
          json(all_of(known))
        end
      end

      def self.speaking(app)
        app.get("/say/:line") do
          json(text: spoken(id(params[:line]), params["again"] == "1"))
        end

        app.get("/say/:line/wav") do
          words = spoken(id(params[:line]), params["again"] == "1") || not_found
          content_type "audio/wav"
          Media::Espeak.wav([[words, nil]], of: show_id) || halt(503, "There is no voice on this machine.\n")
        end
      end

      def self.acting(app)
        app.post("/act") do
          need(:act)
          given = body_json
          act = ACTS[given["do"].to_s] || raise(Error.new("There is nothing of that name to be done.", field: "do", value: given["do"]))
          values = acted_on(given)
          by = actor
          deed = ask { |running| act.call(running, values, by) }
          json(done: true, deed: deed.is_a?(Core::Moderation::Deed) ? deed.id : nil)
        end
      end

      def self.answering(app)
        app.post("/answer") do
          need(:act)
          given = body_json
          words = text(given["text"])
          feeds = Array(given["feeds"]).filter_map { |feed| feed.to_s[/\A\d{1,18}\z/]&.to_i }
          by = actor
          json(answer: ask { |running| running.answer_in_chat(words, feeds, by) })
        end
      end
      private_class_method :reading, :tracing, :looking_up, :speaking, :acting, :answering

      # Helpers of both apps.
      module Helpers
        # Which chats there are, and how answers went.
        def feeds_told
          ask do |running|
            feeds = running.lanes.each_value.map do |lane|
              {id: lane.id, name: lane.feed.name, mark: lane.mark, platform: lane.feed.platform, answers: lane.answers?, lacks: lane.lacks}
            end
            {feeds:, answers: running.answers.report}
          end
        end

        # @return [Array<Store::Lines::Entry>] oldest first
        def found(*words)
          words, person = words.map { |given| given.strip[0, 100].then { |trimmed| trimmed.empty? ? nil : trimmed } }
          Store::Log.new(site.db).page(show_id, Store::Log::Search.new(text: words, person:)).first(FOUND).reverse
        end

        # Numbers are read once, here.
        def acted_on(given)
          number = ->(name) { given[name].to_s[/\A\d{1,18}\z/]&.to_i }
          Given.new(number["line"], text(given["name"]).strip, number["feed"], number["minutes"]&.clamp(1, 525_600), given["on"] != false,
            text(given["text"]), number["deed"])
        end

        # What a voice says of a line, as it is shown.
        # @return [String, nil] nil where there is nothing of it to say
        def spoken(line_id, again)
          kept, line = ask do |running|
            kept = running.lines[line_id]
            said = kept && kept.state.name != :off && !kept.state.taken?
            [kept, said ? kept.line.as_shown(kept.verdict.shown, running.wardrobe.emotes) : nil]
          end
          not_found unless kept
          line && Core::Reading::Speech.of(line, again:)
        end

        def cards(entries)
          ask do |running|
            entries.filter_map { |entry| (lane = running.lanes[entry.line.feed_id]) && running.prompter.card_of(lane, entry) }
          end
        end

        # Who somebody is, what they said last, and what was done about them.
        def all_of(known)
          search = Store::Log::Search.new(person: known.login, feed_id: known.feed_id)
          lines = Store::Log.new(site.db).page(show_id, search).first(PERSON_LINES).reverse
          deeds = site.stores.deeds.about(show_id, known.login).map { |deed| Live::PrompterDesk.deed_card(deed) }
          {person: person(known), lines: cards(lines), deeds:}
        end

        def person(known)
          feed = site.stores.feeds.find(known.feed_id)
          {feed: known.feed_id, feed_name: feed&.name, mark: feed && [feed.shape, feed.colour], login: known.login, name: known.display_name,
           first: known.first_ms, last: known.last_ms, lines: known.lines, note: known.note, noted_by: known.noted_by,
           left_out: ask { |running| !running.gatehouse.left_out.find(Core::Chat::Person.new(known.feed_id, known.login, known.display_name), running.now_ms).nil? }}
        end

        def trace(entry)
          feeds = site.stores.feeds.all_of_show(show_id).to_h { |feed| [feed.id, feed] }
          told = Trace.new(entry, feeds[entry.line.feed_id], site.stores.deeds.of_line(show_id, entry.line.id))
          {line: cards([entry]).first, steps: told.steps}
        end

        # @return [Hash, nil] how it is laid over something else, where that is asked for: size of the words in pixels, and how opaque the
        #   ground of the whole is in percent
        def over_a_game
          return unless params.key?("over")

          OVER.to_h { |name, (bounds, otherwise)| [name.to_sym, (text(params[name])[/\A\d{1,4}\z/]&.to_i || otherwise).clamp(bounds)] }
        end

        # What the page is set up with.
        def prompter_page(base:, signed_in:)
          over = over_a_game
          hears = !over && signed_in && Core::Rights.may?(role, :direct)
          headers MicrophoneApp::MAY_HEAR if hears
          running = show
          @setup = {base:, role:, host: running.record.host_name, actor:, acts: !over && Core::Rights.may?(role, :act), signed_in:, hears:,
                    offers: Live::PrompterDesk::OFFERS, over:}
          erb :prompter, layout: false
        end
      end
    end
  end
end
