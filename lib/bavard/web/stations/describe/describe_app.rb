# frozen_string_literal: true

require_relative "../../../feeds/described/bench/beginnings"
require_relative "../../../feeds/described/bench/recorder"
require_relative "../all/station"
require_relative "bench_report"
require_relative "recordings"

module Bavard
  module Web
    # The bench for descriptions: what a platform sends, how it is described, and what becomes of it. Belongs to Feeds.
    class DescribeApp < Station
      # Of one description, as JSON; of all its samples together.
      LARGEST_SAMPLES_BYTES = 300_000
      WAYS = {"poll" => "Asked over HTTP, again and again", "stream" => "Server-sent events", "lines" => "A JSON text a line",
              "socket" => "A WebSocket", "irc" => "A server that speaks IRC"}.freeze
      RECORDINGS = Recordings.new

      before do
        @here = "describe"
      end

      before("/:id/*") { kept }

      get "/" do
        @descriptions = descriptions
        newest = @descriptions.max_by(&:changed_at_ms)
        redirect to("/#{newest.id}") if newest && !params.key?("new")
        erb :describe
      end

      # From nothing, by how it is reached, or from a file.
      post "/" do
        written, samples = params["file"] ? brought(params["file"]) : [beginning(text(params["way"])), []]
        json(id: site.stores.descriptions.add(@record.id, written, samples, ask(&:now_ms)).id)
      end

      get "/:id" do
        @descriptions = descriptions
        @kept = kept
        erb :describe
      end

      # What becomes of frames, of a text that is not kept yet.
      post "/:id/read" do
        kept
        given = body_json
        report = BenchReport.new(bench_of(given)).of(list(given["frames"]), given["chosen"].is_a?(Integer) ? given["chosen"] : nil)
        json(name: name_in(text(given["text"])), **report)
      end

      post "/:id/keep" do
        given = body_json
        site.stores.descriptions.keep(@record.id, kept.id, written(given), samples(given), ask(&:now_ms)) || not_found
        told = changed
        json(usable: ask { |show| show.platforms.all.key?(own_key) }, key: own_key, used: told)
      end

      # What was pasted or brought, as frames.
      post("/:id/frames") { json(frames: Bench::Frames.read(text(body_json["text"]))) }

      # A field more, or a rule for what nothing reads.
      post "/:id/offer" do
        given = body_json
        bench = bench_of(given)
        item = chosen_item(bench, given)
        json(text: given["field"] ? with_field(bench, given, item) : bench.with_rule(text(given["is"]), item.given))
      end

      post "/:id/record" do
        given = body_json
        platform = platform_of(bench_of(given, reads: true))
        read = Feeds::Described.read(asked(given["values"], platform), platform)
        RECORDINGS.begin(@record.id, kept.id, Bench::Recorder.new(platform, read, site.clock))
        json(done: true)
      end

      get "/:id/recording" do
        frames, told = RECORDINGS.of(@record.id, kept.id)&.since(text(params["from"]).to_i.clamp(0, Bench::Frames::MOST))
        json(frames: frames || [], told: told&.to_h)
      end

      post "/:id/recording/stop" do
        RECORDINGS.of(@record.id, kept.id)&.stop
        json(done: true)
      end

      get "/:id/along.json" do
        bench = Bench::Bench.new(kept.text, kept.samples)
        halt 422, problem("This text is no JSON yet.") unless bench.whole
        headers "content-disposition" => %(attachment; filename="#{bench.whole["key"].to_s[/\A[a-z0-9-]{1,40}\z/] || "platform"}.json")
        content_type :json
        Bench::Written.text(bench.whole)
      end

      post "/:id/remove" do
        site.stores.descriptions.remove(@record.id, kept.id)
        changed
        json(done: true)
      end

      Bench = Feeds::Described::Bench

      helpers do
        def descriptions = site.stores.descriptions.of_show(@record.id)
        def kept = @kept ||= site.stores.descriptions.find(@record.id, id(params[:id])) || not_found
        def own_key = "#{Feeds::Platform::OWN}#{kept.id}"
        def list(value) = value.is_a?(Array) ? value.first(Bench::Frames::MOST) : []

        def beginning(way) = WAYS.key?(way) ? Bench::Beginnings.of(way) : not_found

        # @return [String] how a description is called, also one that cannot be read
        def name_in(text)
          text[/"name"\s*:\s*"([^"\\]{1,40})"/, 1] || "Without a name"
        end

        # The running show reads by it at once.
        #
        # @return [Integer] feeds that are read by this one
        def changed
          own = descriptions
          key = own_key
          ask do |show|
            show.describe(own)
            show.lanes.each_value.count { |lane| lane.feed.platform == key }
          end
        end

        def written(given)
          text = text(given["text"])
          most = Feeds::Described::Description::LARGEST_BYTES
          raise Error.new("A description has room for #{most / 1000} kB.", field: "text") if text.bytesize > most

          text
        end

        def samples(given)
          samples = list(given["samples"]).grep(Hash).first(Feeds::Described::Samples::MOST)
          return samples if JSON.generate(samples).bytesize <= LARGEST_SAMPLES_BYTES

          raise Error.new("Samples have room for #{LARGEST_SAMPLES_BYTES / 1000} kB in all.", field: "samples")
        end

        # @param reads [Boolean] whether something has to be read by it, so that one that says nothing of that yet reads nothing
        def bench_of(given, reads: false)
          bench = Bench::Bench.new(written(given), samples(given))
          return bench unless reads && bench.description.nil? && bench.whole

          Bench::Bench.new(Bench::Written.text(bench.whole.except("samples").merge("reads" => Bench::Recorder::NOTHING_YET)))
        end

        def platform_of(bench)
          fault = bench.faults.find { |one| !one.at.start_with?("/reads") }
          raise Error.new("Line #{fault.line}: #{fault.words}.", field: "text") if fault || bench.description.nil?

          Feeds::Platform.own(bench.description, kept.id, site.door)
        end

        # @return [Hash{String => String}] what was typed, as forms name it
        def asked(values, platform)
          values = {} unless values.is_a?(Hash)
          values.to_h { |name, value| ["#{platform.key}.#{name}", text(value)] }
        end

        def chosen_item(bench, given)
          bench.items(given["frame"])[given["item"].is_a?(Integer) ? given["item"] : 0] ||
            raise(Error.new("Nothing can be read of that frame.", field: "frame"))
        end

        def with_field(bench, given, item)
          field = bench.unread(item).find { |one| one.path == given["path"] } || raise(Error.new("That is read already.", field: "path"))
          bench.with_field(item.rule, text(given["field"]), field.path, field.value)
        end

        # @return [Array(String, Array<Hash>)]
        def brought(file)
          bytes = file.is_a?(Hash) && file[:tempfile] ? file[:tempfile].read(LARGEST_SAMPLES_BYTES * 2) : ""
          whole = Feeds::Given.json(bytes)
          raise Error.new("That file is no description.", field: "file") unless whole.is_a?(Hash)

          [Bench::Written.text(whole.except("samples")), samples(whole)]
        rescue JSON::ParserError
          raise Error.new("That file is no JSON.", field: "file")
        end
      end
    end
  end
end
