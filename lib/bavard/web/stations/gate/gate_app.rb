# frozen_string_literal: true

require_relative "../../../core/chat/line"
require_relative "../../../core/gate/lists"
require_relative "../../../core/gate/sets"
require_relative "../all/field_words"
require_relative "gate_trial"
require_relative "../all/station"

module Bavard
  module Web
    # What may go on screen: the ladder of rules, tried on a line and over the log before an edit counts.
    class GateApp < Station
      set :needs_to_see, :act
      set :needs_to_do, :act
      # What is changed for good is for directors; people, brakes and tries are for moderators too.
      DIRECTED = %r{\A/(?:keep|use|sets|hold)}

      before { need(:direct) if request.post? && request.path_info.match?(DIRECTED) }

      HOUR_MS = 3_600_000
      SPANS = {"hour" => HOUR_MS, "day" => 24 * HOUR_MS}.freeze
      # A broadcast is at most that long.
      LONGEST_SPAN_MS = 7 * 24 * HOUR_MS

      get "/" do
        @here = "gate"
        @state = state(gate)
        @feeds = ask { |show| show.lanes.each_value.map(&:feed) }
        erb :gate
      end

      get "/state" do
        json(state(gate))
      end

      # The edited rules, made whole; nothing is kept yet.
      post "/check" do
        json(rules: rules_of(body_json))
      end

      post "/try" do
        given = body_json
        rules = rules_of(given)
        memory = ask { |show| show.gatehouse.left_out.to_a }
        json(GateTrial.new(rules, memory, given).report)
      end

      post "/replay" do
        given = body_json
        to_ms = ask(&:now_ms)
        from_ms, to_ms = span(given, to_ms)
        before = Core::Gate::Settings.in_force(gate)["rules"]
        run = site.replays.begin(@record.id, {show: @record.id, before:, after: rules_of(given), from_ms:, to_ms:})
        json(run.report)
      end

      get "/replay/:id" do
        json((site.replays.find(@record.id, text(params[:id])) || not_found).report)
      end

      post "/replay/:id/stop" do
        run = site.replays.find(@record.id, text(params[:id])) || not_found
        site.replays.stop(run)
        json(run.report)
      end

      # The edit counts from now on, unless somebody else kept one since it was begun.
      post "/keep" do
        given = body_json
        rules = rules_of(given)
        change("rules") { |gate| Core::Gate::Sets.keep(gate, rules, from: given["from"]) }
      end

      # Another set is in force from now on.
      post "/use" do
        index = text(params["set"])[/\A\d{1,2}\z/].to_i
        change("rules") { |gate| Core::Gate::Sets.use(gate, index, text(params["name"])) }
      end

      # A set like the one in force, under another name; it is in force then.
      post "/sets" do
        change("rules") { |gate| Core::Gate::Sets.add(gate, text(params["name"]), from: params["from"]) }
      end

      post "/sets/rename" do
        change("rules") { |gate| Core::Gate::Sets.rename(gate, text(params["name"]), from: params["from"]) }
      end

      post "/sets/remove" do
        change("rules") { |gate| Core::Gate::Sets.remove(gate, from: params["from"]) }
      end

      post "/hold" do
        hold = Core::Gate::Settings.hold(body_json)
        change("hold") { |gate| gate.merge("hold" => hold) }
      end

      post "/brake" do
        given = body_json
        by = actor
        change("brake") do |gate, show|
          gate.merge("brake" => given["kind"].to_s == "off" ? nil : Core::Gate::Brake.read(given, now_ms: show.now_ms, by:).to_h)
        end
      end

      get "/left-out" do
        json(people: ask { |show| show.gatehouse.left_out.to_a }.map { |entry| {name: entry.name, feed: entry.feed_id, until: entry.until_ms} })
      end

      post "/left-out" do
        name = text(params["name"])
        minutes = text(params["minutes"])[/\A\d{1,6}\z/]&.to_i
        feed_id = text(params["feed"])[/\A\d{1,18}\z/]&.to_i
        by = actor
        ask { |show| show.leave_out(name, by, feed_id:, until_ms: minutes && (show.now_ms + (minutes * 60_000))) }
        json(done: true)
      end

      post "/left-out/back" do
        name = text(params["name"])
        feed_id = text(params["feed"])[/\A\d{1,18}\z/]&.to_i
        by = actor
        ask { |show| show.take_back(name, by, feed_id:) }
        json(done: true)
      end

      # A set of rules from elsewhere, as an edit: it counts when it is kept.
      post "/read" do
        set = Core::Gate::RuleSet.read(JSON.parse(request.body.read, max_nesting: 20))
        json(set)
      rescue JSON::ParserError, EncodingError
        raise Error.new("That file is no JSON. A set of rules is taken along from here as JSON.", field: "file")
      end

      get "/rules.json" do
        content_type :json
        set = Core::Gate::Settings.in_force(gate)
        headers "content-disposition" => %(attachment; filename="rules.json")
        JSON.pretty_generate(set)
      end

      # A list as a file gives it, as text, one a line.
      post "/list/read" do
        list = Core::Gate::Lists.read(request.body.read, field: "words", most: Core::Gate::StoppedWords::MOST)
        json(text: list)
      end

      post "/list/write/:format" do
        format = text(params[:format])
        not_found unless Core::Gate::Lists::FORMATS.include?(format)
        entries = Core::Gate::Lists.lines(text(params["text"]), most: Core::Gate::StoppedWords::MOST, field: "words")
        content_type({"json" => "application/json", "csv" => "text/csv"}.fetch(format, "text/plain"))
        Core::Gate::Lists.write(entries, format)
      end

      helpers do
        # What is kept is written a moment later: the show knows.
        def gate = ask { |show| show.record.gate }

        # @return [Hash] what the page draws
        def state(gate)
          kinds = Core::Gate::Rules::KINDS.values.map do |kind|
            {key: kind::KEY, label: kind::LABEL, about: kind::ABOUT, icon: kind::ICON,
             fields: kind.properties.values.map { |property| FieldWords.of(property) },
             blank: kind.build(kind::KEY)}
          end
          set = Core::Gate::Settings.in_force(gate)
          version = Core::Gate::Sets.version(gate)
          {set: set["name"], version:, rules: with_words(set["rules"]), kinds:, hold: gate["hold"], roles: Core::Gate::RuleKind::ROLES}
        end

        def with_words(rules) = rules.map { |rule| rule.merge("words_of" => Core::Gate::Rules.kind(rule["kind"]).new(rule).words) }

        # @raise [Bavard::Error]
        def rules_of(given)
          return Core::Gate::Settings.in_force(gate)["rules"] unless given["rules"]

          rules = Array(given["rules"]).map { |rule| rule.is_a?(Hash) ? rule.except("words_of") : rule }
          with_words(Core::Gate::RuleSet.read("name" => "Edit", "rules" => rules)["rules"]).map { |rule| request.path_info == "/check" ? rule : rule.except("words_of") }
        end

        # Changes the gate as it is when its show comes to it, whatever happened to it until then. Only the ladder of other rules is
        # made beforehand, so that the show does not wait for it.
        def change(what)
          by = actor
          prepared = yield(*ask { |show| [show.record.gate, show] })
          ladder = ladder_of(prepared)
          gate = ask do |show|
            before = show.record.gate
            gate = yield(before, show)
            show.use_gate(gate, made_ladder(gate, before, show.gatehouse.ladder) || made_ladder(gate, prepared, ladder))
            show.deed(what, by, about: what == "rules" ? Core::Gate::Settings.in_force(gate)["name"] : nil)
            gate
          end
          json(state(gate))
        rescue Conflict => error
          raise error.in_words(changed_meanwhile, field: error.field)
        end

        def ladder_of(gate)
          now, ladder = ask { |show| [show.record.gate, show.gatehouse.ladder] }
          made_ladder(gate, now, ladder) || Core::Gate::Ladder.from(Core::Gate::Settings.in_force(gate)["rules"])
        end

        # @return [Core::Gate::Ladder, nil] the ladder made for one gate, where another has the same rules in force
        def made_ladder(gate, of, ladder)
          ladder if Core::Gate::Settings.in_force(gate)["rules"] == Core::Gate::Settings.in_force(of)["rules"]
        end

        def changed_meanwhile
          last = ask { |show| show.prompter.newest_deed("rules") }
          "#{last ? last.by : "Somebody"} changed the rules meanwhile. Look at what is in force now before you keep yours in its place."
        end

        def span(given, now_ms)
          length = SPANS[given["span"].to_s] and return [now_ms - length, now_ms]
          from, to = given.values_at("from_ms", "to_ms").map { |ms| Integer(ms, exception: false) }
          unless from && to && from < to && to - from <= LONGEST_SPAN_MS
            raise Error.new("A broadcast is from one time to a later one, at most a week.",
              field: "span")
          end

          [from, to]
        end
      end
    end
  end
end
