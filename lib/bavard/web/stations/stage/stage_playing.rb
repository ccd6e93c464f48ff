# frozen_string_literal: true

require_relative "../../../error"
require_relative "../../../live/rehearsal/playback"
require_relative "../../../live/rehearsal/rehearsal"
require_relative "../../links/now_app"
require_relative "../all/station"

module Bavard
  module Web
    # What plays on a stage: now lines and clocks on air, made-up traffic in the draft; routes of the Stage.
    class StageApp < Station
      SCRIPT_BARS = 72
      # Of the log, the newest.
      MOST_PLAYED = 2000

      # The text of a now line, a file of captions, a clock or challenge that begins, stops or goes back, a counter that counts; on
      # air at once.
      post "/:stage/pieces/:piece/live" do
        piece = text(params[:piece])
        on_desk do |desk|
          given = Core::Stage::Document.piece(desk.stage.draft, piece) || raise(Error.new("That piece is no longer on the stage.", field: "piece"))
          desk.set_live { |live| set_live(live, given) }
        end
        json(done: true)
      end

      # Where others set the text of a now line.
      get "/:stage/pieces/:piece/address" do
        stage = on_desk(&:stage)
        piece = text(params[:piece])
        json(address: "#{request.base_url}/now/#{stage.id}/#{piece}/#{NowApp.key(site, stage, piece)}")
      end

      post "/:stage/rehearse" do
        stage_id = id(params[:stage])
        script = site.scripts[text(params["script"])]
        rate = text(params["rate"])[/\A\d{1,4}\z/]&.to_i
        ask { |show| show.desk(stage_id).room.play(script, show.now_ms, rate:) }
        json(done: true)
      end

      # An export of the log, played again.
      post "/:stage/play" do
        stage_id = id(params[:stage])
        file = params["file"].is_a?(Hash) && params["file"][:tempfile] or raise Error.new("Which file? An export of the log as JSON Lines.",
          field: "file")
        speed = Float(text(params["speed"]).tr(",", "."), exception: false) || 1.0
        play(stage_id, Live::Playback.script(file.read(Live::Playback::LARGEST_BYTES + 1), speed))
      end

      # What this show's own log holds of the last minutes, made into a script.
      post "/:stage/play-recent" do
        stage_id = id(params[:stage])
        minutes = text(params["minutes"]).to_i.clamp(1, 24 * 60)
        since_ms = site.clock.call - (minutes * 60_000)
        entries = site.stores.lines.latest(@record.id, MOST_PLAYED).select { |entry| entry.line.shown_at_ms >= since_ms }
        script = Live::Playback.of_entries(entries) || raise(Error.new("Nothing was said in the last #{minutes} minutes.", field: "minutes"))
        play(stage_id, script)
      end

      # A made-up voice room in the draft, or the show's own again.
      post "/:stage/voices" do
        stage_id = id(params[:stage])
        key = text(params["script"])
        ask { |show| show.desk(stage_id).voice_room.play(key, show.now_ms) }
        json(done: true)
      end

      # One of the cast talks for as long as a key is held.
      post "/:stage/voices/talk" do
        stage_id = id(params[:stage])
        who = text(params["who"])
        on = params["on"] == "1"
        ask { |show| show.desk(stage_id).voice_room.talk(who, on, show.now_ms) }
        json(done: true)
      end

      # Held, on again, one step, at another pace, or at a moment.
      post "/:stage/rehearsal" do
        stage_id = id(params[:stage])
        how, value = fields("how", "value").values
        ask do |show|
          desk = show.desk(stage_id)
          case how
          when "hold", "step", "on" then desk.room.hold(how, show.now_ms)
          when "rate" then desk.room.rate_to(value.empty? ? nil : value.to_i, show.now_ms)
          when "at" then desk.room.go_to(value.to_i, show.now_ms)
          else raise Error.new("A rehearsal is held, goes on, steps, or goes to a moment.", field: "how", value: how)
          end
        end
        json(done: true)
      end

      # The scripts there are, with how many come when.
      get("/scripts") { json(scripts: site.scripts.each_value.map { |script| {key: script.key, bars: script.bars(SCRIPT_BARS)} }) }

      helpers do
        def set_live(live, piece)
          return caption_file(live, piece, params["file"]) if params["file"].is_a?(Hash)

          count = text(params["count"])
          run = text(params["run"])
          if !count.empty? then live.counts.count(piece, count.to_i)
          elsif run.empty? then live.text(piece["id"], text(params["text"]))
          elsif piece["kind"] == "challenge" then live.counts.run(piece, run, live.now_ms)
          else live.run(piece["id"], run)
          end
        end

        def caption_file(live, piece, file)
          file[:tempfile] or raise Error.new("Which file?", field: "file")
          live.caption_file(piece["id"], file[:tempfile].read(Core::Reading::Captions::LONGEST_FILE))
        end

        def play(stage_id, script)
          ask { |show| show.desk(stage_id).room.play(script, show.now_ms) }
          json(lines: script.steps.size, lasts_ms: script.length_ms, bars: script.bars(SCRIPT_BARS))
        end
      end

      post "/:stage/clear" do
        on_desk(&:clear_draft)
        json(done: true)
      end

      post "/:stage/backdrop" do
        name = text(params["backdrop"])
        own = name[Live::Backdrops::OWN, 1]
        name = "none" unless BACKDROPS.key?(name) || (own && site.stores.files.find(@record.id, "backdrop", own))
        on_desk { |desk| desk.backdrop = name }
        json(done: true)
      end
    end
  end
end
