# frozen_string_literal: true

require "securerandom"
require_relative "../../../core/cues/made_up"
require_relative "../../../core/cues/sample"
require_relative "../../../core/cues/settings"
require_relative "../../../media/espeak"
require_relative "../all/field_words"
require_relative "../all/station"
require_relative "cue_pictures"

module Bavard
  module Web
    # The cue sheet: what happens on screen for which event. Belongs to Dress.
    class CuesApp < Station
      LARGEST_BYTES = Bodies::CUE_PICTURE_BYTES
      # Where a made-up event plays.
      WHERE = {"draft" => :draft, "screens" => :screens}.freeze
      # What of a cue may be dropped on it besides its picture.
      PLAYED = %w[film sound].freeze
      # What the buttons of the queue do, as deeds.
      QUEUE = {"skip" => "cue_skip", "pause" => "cue_pause", "go_on" => "cue_go_on", "clear" => "cue_clear", "approve" => "cue_play",
               "remove" => "cue_off"}.freeze
      # A broadcast that is said to have begun earlier is over.
      LONGEST_AGO_MS = 40 * 24 * 3_600_000
      # How values of cues read where the value itself is not the word.
      WORDS = {
        "type_face" => {"piece" => "as the piece has it"}, "spoken_by" => {"machine" => "this machine", "screen" => "the screen"},
        "words_in" => {"whole" => "as a whole", "words" => "word by word", "letters" => "letter by letter", "counted" => "figures count up"},
        "flurry_way" => {"piece" => "as the piece has it"}, "motion_in" => {"piece" => "as the piece has it"},
        "motion_out" => {"piece" => "as the piece has it"}, "flurry_from" => {"piece" => "as the piece has it"}
      }.freeze

      get "/" do
        @here = "cues"
        @sounds, @films = named.values_at(:sounds, :films)
        @voices = Media::Espeak.voices.to_a
        @voices = [["en-gb", "none on this machine"]] if @voices.empty?
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

      # The cue that an alerts piece for these kinds of events shows while it is edited.
      get "/shown" do
        kinds = text(params["kinds"]).split(",") & Core::Cues::KINDS.keys
        cues = ask { |show| show.cues.document["cues"] }
        cue = Core::Style::Samples.shown(kinds, cues) || raise(Error.new("No cue is for that yet. Add one on the cue sheet.", field: "kinds"))
        json(cue.slice("id", "name"))
      end

      get("/now") { json(ask { |show| show.cues.report }) }

      post "/cues" do
        change(:add, "cue_#{SecureRandom.hex(6)}", text(params["kind"]))
      end

      # Some of its properties.
      post "/cues/:cue" do
        change(:set, text(params[:cue]), body_json)
      end

      # Puts one before or behind the others.
      post "/cues/:cue/move" do
        change(:move, text(params[:cue]), text(params["by"]) == "-1" ? -1 : 1)
      end

      post "/cues/:cue/remove" do
        change(:remove, text(params[:cue]))
      end

      # What was just taken away, as it was.
      post "/put-back" do
        change(:put_back, body_json)
      end

      post "/cues/:cue/picture" do
        cue = text(params[:cue])
        given = params["file"]
        next change(:picture, cue, nil) unless given.is_a?(Hash) && given[:tempfile]

        name = text(given[:filename])
        taking(given) do |file, watch|
          picture = BroughtFiles.new(site, @record.id, watch:).figure(name, file.read(LARGEST_BYTES))
          ask { |show| show.edit_cues(:picture, cue, picture) }
          sheet
        end
      end

      # A film or a sound that is dropped on the cue: brought, and played with it.
      post "/cues/:cue/files" do
        cue = kept_cue["id"]
        kind = PLAYED.find { |one| one == params["kind"] } || not_found
        given = params["file"]
        raise Error.new("Which file?", field: "file") unless given.is_a?(Hash) && given[:tempfile]

        name = text(given[:filename])
        taking(given) do |file, watch|
          kept = BroughtFiles.new(site, @record.id, watch:).keep(kind, name, file)
          ask { |show| show.edit_cues(:set, cue, {kind => kept.id}) }
          sheet.merge(named:)
        end
      end

      # Somebody and something by chance that fit the cue, as its picture shows them.
      get "/cues/:cue/another" do
        cue = kept_cue
        sample = Core::Cues::Sample.thrown(cue, Random.new)
        json(sample:, card: CuePictures.card(cue, sample))
      end

      # What would be said of something that is typed, or of a sample.
      get "/cues/:cue/spoken.wav" do
        cue = kept_cue
        typed = typed_event.reject { |name, value| name == "kind" || value.empty? }
        line = Core::Cues::MadeUp.line(Core::Cues::Sample.for(cue).merge(typed), id: 0, now_ms: 0)
        event = Core::Cues::Event.of(line, roles: [])
        parts = Core::Cues::Spoken.parts(cue, words: Core::Cues::Words.of(cue["words"], event), name: event.name, line:, voices: Media::Espeak)
        not_found if parts.empty?
        content_type "audio/wav"
        Media::Espeak.wav(parts.map(&:to_a), of: @record.id, **Core::Cues::Spoken.manner(cue)) || halt(503, "There is no voice on this machine.\n")
      end

      # All cues for its kind of event are said as it is.
      post "/cues/:cue/spoken-alike" do
        change(:speak_alike, text(params[:cue]))
      end

      # When it plays, how often it did lately, and what would play in its place.
      get "/cues/:cue/about" do
        cue = kept_cue
        event = Core::Style::Samples.event(Core::Cues::Sample.for(cue))
        json(ask { |show| show.cues.about(cue["id"], event, show.now_ms) }.merge(narrowed: Core::Cues::Cue.narrowed(cue), kind: Core::Cues::KINDS[cue["kind"]]))
      end

      post "/queue" do
        change(:queue, body_json)
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
        def kept_cue
          id = text(params[:cue])
          ask { |show| show.cues.document["cues"].find { |cue| cue["id"] == id } } || not_found
        end

        # What sounds and films there are to choose from.
        def named = {sounds: "sound", films: "film"}.transform_values { |kind| [["", "None"], *names_of(kind)] }

        def names_of(kind) = site.stores.files.of_show(@record.id, kind).map { |file| [file.id, file.name] }

        def sheet
          document, findings, stages = ask { |show| [show.cues.document, show.cue_findings, show.desks.each_value.map(&:stage)] }
          cues = document["cues"]
          {cues:, queue: document["queue"], findings:, narrowed: cues.to_h { |cue| [cue["id"], Core::Cues::Cue.narrowed(cue)] },
           totals: ask(&:totals), told: ask(&:told_now), samples: cues.to_h { |cue| [cue["id"], Core::Cues::Sample.for(cue)] },
           also: cues.to_h { |cue| [cue["id"], Core::Cues::Cue.also(cue)] },
           **CuePictures.new(cues, stages, site.stores.files.of_show(@record.id, "sound")).report}
        end

        # @param edit [Symbol] of Core::Cues::SheetEdits
        def change(edit, *given)
          ask { |show| show.edit_cues(edit, *given) }
          json(sheet)
        end

        # @return [Core::Chat::Line]
        def made_up
          now_ms = site.clock.call
          Core::Cues::MadeUp.line(typed_event, id: site.ids.next(now_ms), now_ms:)
        end

        def typed_event = %w[kind name message number amount currency].to_h { |name| [name, text(params[name])] }
      end
    end
  end
end
