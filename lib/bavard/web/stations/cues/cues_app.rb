# frozen_string_literal: true

require "securerandom"
require_relative "../../../core/chat/line"
require_relative "../../../core/cues/sample"
require_relative "../../../core/cues/settings"
require_relative "../all/field_words"
require_relative "../all/station"

module Bavard
  module Web
    # The cue sheet: what happens on screen for which event. Belongs to Dress.
    class CuesApp < Station
      LARGEST_BYTES = Bodies::CUE_PICTURE_BYTES
      # Where a made-up event plays.
      WHERE = {"draft" => :draft, "screens" => :screens}.freeze
      LONGEST_MESSAGE = 300
      # What the buttons of the queue do, as deeds.
      QUEUE = {"skip" => "cue_skip", "pause" => "cue_pause", "go_on" => "cue_go_on", "clear" => "cue_clear", "approve" => "cue_play",
               "remove" => "cue_off"}.freeze
      # A broadcast that is said to have begun earlier is over.
      LONGEST_AGO_MS = 40 * 24 * 3_600_000
      # How values of cues read where the value itself is not the word.
      WORDS = {
        "flurry_way" => {"piece" => "as the piece has it"}, "motion_in" => {"piece" => "as the piece has it"},
        "motion_out" => {"piece" => "as the piece has it"}, "flurry_from" => {"piece" => "as the piece has it"}
      }.freeze

      get "/" do
        @here = "cues"
        @label = "Cue sheet"
        @sounds, @films = %w[sound film].map { |kind| [["", "None"], *names_of(kind)] }
        @feeds, @cues = ask do |show|
          [show.lanes.values.map { |lane| {id: lane.id.to_s, name: lane.feed.name} }, show.cues.document["cues"].size]
        end
        erb :cues
      end

      get "/sheet" do
        fields = Core::Cues::Cue::PROPERTIES.transform_values do |property|
          FieldWords.of(property) { |choice| Core::Cues::KINDS[choice] || WORDS.dig(property.name, choice) }
        end
        json(sheet.merge(kinds: Core::Cues::KINDS, fields:))
      end

      get("/now") { json(ask { |show| show.cues.report }) }

      post "/cues" do
        kind = text(params["kind"])
        change do |document|
          words = Core::Cues::Cue::DEFAULT_WORDS[kind] || "{name}"
          cue = Core::Cues::Cue.build("cue_#{SecureRandom.hex(6)}", "kind" => kind, "name" => "Another", "words" => words)
          document.merge("cues" => document["cues"] + [cue])
        end
      end

      # Some of its properties.
      post "/cues/:cue" do
        values = body_json
        change { |document| with_cue(document) { |cue| Core::Cues::Cue.build(cue["id"], cue.except("id").merge(values)) } }
      end

      # Puts one before or behind the others.
      post "/cues/:cue/move" do
        by = text(params["by"]) == "-1" ? -1 : 1
        change do |document|
          cues = document["cues"].dup
          at = cues.index { |cue| cue["id"] == params[:cue] } || no_such_cue
          cues.insert((at + by).clamp(0, cues.size - 1), cues.delete_at(at))
          document.merge("cues" => cues)
        end
      end

      post "/cues/:cue/remove" do
        change { |document| document.merge("cues" => document["cues"].reject { |cue| cue["id"] == params[:cue] }) }
      end

      # What was just taken away, as it was.
      post "/put-back" do
        given = body_json
        change do |document|
          cue = Core::Cues::Cue.build(given["id"].to_s[/\A[a-z0-9_]{1,40}\z/] || no_such_cue, given.slice(*Core::Cues::Cue::PROPERTIES.keys))
          document.merge("cues" => document["cues"].reject { |one| one["id"] == cue["id"] }.push(cue))
        end
      end

      post "/cues/:cue/picture" do
        file = params["file"]
        picture = file.is_a?(Hash) && file[:tempfile] ? figure(text(file[:filename]), file[:tempfile].read(LARGEST_BYTES)) : nil
        change { |document| with_cue(document) { |cue| cue.merge("picture" => picture) } }
      end

      post "/queue" do
        given = body_json
        change { |document| document.merge("queue" => Core::Cues::Settings.queue(document["queue"].merge(given))) }
      end

      # A made-up event, in the drafts or on the real screens: as it was typed, or a sample of its kind; for what the sheet chooses,
      # or for one cue.
      post "/try" do
        params.merge!(Core::Cues::Sample.of(text(params["kind"]))) if params["sample"] == "1"
        where = WHERE[text(params["where"])] || :draft
        only = text(params["cue"])
        line = made_up
        json(ask do |show|
          show.cues.happened(line, show.now_ms, test: where, silent: params["sound"] == "none", only: only.empty? ? nil : only)
          show.cues.report[:recent].first
        end)
      end

      # What is counted by the broadcast begins anew.
      post "/begin" do
        by = actor
        ask do |show|
          show.begin_broadcast
          show.deed("begin", by)
        end
        json(ask { |show| show.cues.report })
      end

      post "/end" do
        by = actor
        ask do |show|
          show.end_broadcast
          show.deed("end", by)
        end
        json(ask { |show| show.cues.report })
      end

      # The beginning, and the end where there was one, as they stood before one of these was pressed.
      post "/begun-before" do
        began, ended = %w[began ended].map { |name| text(params[name])[/\A\d{1,15}\z/]&.to_i }
        ask do |show|
          raise Error.new("No broadcast had begun before that.", field: "began") unless began&.between?(show.now_ms - LONGEST_AGO_MS, show.now_ms)

          show.begin_broadcast(at_ms: began)
          show.end_broadcast(at_ms: ended) if ended&.between?(began, show.now_ms)
        end
        json(ask { |show| show.cues.report })
      end

      # How many there are in all just now, as the platform says; what comes is counted on top of it.
      post "/totals" do
        counted = text(params["counted"])
        not_found unless Core::Cues::Tally::COUNTED.key?(counted)
        number = Integer(text(params["number"]).delete(" ,."), 10, exception: false) or raise Error.new("A total is a number.", field: "number")
        totals, told = ask { |show| [show.set_total(counted, number), show.told_now] }
        json(totals:, told:)
      end

      post "/again" do
        line_id = text(params["line"])[/\A\d{1,18}\z/]&.to_i
        by = actor
        ask { |show| show.play_again(line_id, by) }
        json(done: true)
      end

      post "/now/:what" do
        deed = QUEUE[text(params[:what])] || not_found
        waiting_id = text(params["id"])[/\A\d{1,18}\z/]&.to_i
        by = actor
        ask { |show| show.direct_cues(deed, waiting_id, by) }
        json(ask { |show| show.cues.report })
      end

      helpers do
        def names_of(kind) = site.house.files.of_show(@record.id, kind).map { |file| [file.id, file.name] }

        def sheet
          document, findings = ask { |show| [show.cues.document, show.cue_findings] }
          cues = document["cues"]
          {cues:, queue: document["queue"], findings:, narrowed: cues.to_h { |cue| [cue["id"], Core::Cues::Cue.narrowed(cue)] },
           totals: ask(&:totals), told: ask(&:told_now), samples: cues.to_h { |cue| [cue["id"], Core::Cues::Sample.for(cue)] },
           also: cues.to_h { |cue| [cue["id"], Core::Cues::Cue.also(cue)] }}
        end

        # Said from the show's own thread, where no answer can be given.
        def no_such_cue = raise(Error.new("That cue is no longer on the sheet.", field: "cue"))

        # Worked out on what there is now, in the show's own thread.
        def change
          ask { |show| show.use_cues(Core::Cues::Settings.read(yield(show.cues.document))) }
          json(sheet)
        end

        def with_cue(document)
          document["cues"].any? { |cue| cue["id"] == params[:cue] } || no_such_cue
          document.merge("cues" => document["cues"].map { |cue| cue["id"] == params[:cue] ? yield(cue) : cue })
        end

        def made_up
          kind = text(params["kind"])
          raise Error.new("What happens?", field: "kind") unless Core::Cues::KINDS.key?(kind)

          now_ms = site.house.clock.call
          body = kind == "paid" ? said : Core::Happened.new(kind.to_sym, said, text(params["number"])[/\A\d{1,9}\z/]&.to_i)
          intake = Core::Intake.new(kind == "paid" ? :line : :event, nil, nil, nil, now_ms, body)
          Core::Chat::Line.from(intake, id: site.house.ids.next(now_ms), origin: :test)
        end

        def said
          made = Core::Said.new("made_up", text(params["name"]).strip[0, 60], nil, [], text(params["message"])[0, LONGEST_MESSAGE], false, false)
          made.tap { made.paid = amount }
        end

        def amount
          given = text(params["amount"]).tr(",", ".").strip
          return if given.empty?

          number = Float(given, exception: false)
          raise Error.new("An amount is a number.", field: "amount") unless number&.finite?

          currency = text(params["currency"]).strip
          exponent = Core::Amount::EXPONENTS.fetch(currency, 2)
          Core::Amount.money((number * (10**exponent)).round, currency) || Core::Amount.own(number.round, currency.empty? ? "sparks" : currency)
        end
      end
    end
  end
end
