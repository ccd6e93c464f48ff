# frozen_string_literal: true

require "json"
require_relative "child"
require_relative "ports"

module Bavard
  module Start
    # The simulated platforms: where they listen, their processes, and the list of platforms the application gets.
    class Standins
      # Ports from the application's on, and what each stand-in is started with.
      OFFSETS = {"irc" => 10, "web" => 11, "lantern" => 13, "skein" => 14, "hidewire" => 15}.freeze
      DESCRIBED = %w[oxbow lantern skein hidewire].freeze
      CHANNEL = "#reedmere"
      PACE = "14"
      PLATFORMS = File.expand_path("../../../docs/platforms", __dir__)
      # Of the application, where nobody says otherwise: those of descriptions go on from there.
      USUAL_PORT = 4600

      attr_reader :ports, :file

      # @param data [DataFolder]
      # @param port [Integer] the application's
      # @param env [Hash] as ENV; OXBOW_PACE, LANTERN_PACE, SKEIN_PACE: lines a minute
      def initialize(data, port, env)
        @data = data
        @port = port
        @env = env
        @file = data.path("platforms.json")
      end

      # They stay where they were last time, if they can.
      def place
        known = placed_before
        taken = [@port]
        @ports = OFFSETS.to_h { |name, offset| [name, Ports.free(known[name] || (@port + offset), taken:).tap { |port| taken << port }] }
        @data.write("standins.json", JSON.generate(@ports))
        @data.write("platforms.json", JSON.pretty_generate(platforms))
        self
      end

      # Nothing where that cannot be read: then they are placed as at first.
      def placed_before
        kept = @data.path("standins.json")
        known = File.exist?(kept) ? JSON.parse(File.read(kept)) : {}
        known.is_a?(Hash) ? known.select { |_, port| port.is_a?(Integer) } : {}
      rescue JSON::ParserError
        {}
      end

      # @param rights [LeastRights] with which they run
      # @return [Array<Child>] not started yet
      def children(rights)
        @rights = rights
        [child("Oxbow", {"OXBOW_IRC_PORT" => ports["irc"], "OXBOW_WEB_PORT" => ports["web"]}),
          child("Lantern", {"LANTERN_WEB_PORT" => ports["lantern"]}), child("Skein", {"SKEIN_WEB_PORT" => ports["skein"]}),
          child("Hidewire", {"HIDEWIRE_WEB_PORT" => ports["hidewire"], "HIDEWIRE_SCRIPT" => @env.fetch("HIDEWIRE_SCRIPT", "round_table")}, pace: "0")]
      end

      # @return [Array<Array(String, String)>] names, and where to find them
      def places
        [["Oxbow", "irc://127.0.0.1:#{ports["irc"]}/#{CHANNEL.sub("#", "%23")}"], ["Oxbow", "#{page("web")}  (type as any of its viewers)"],
          ["Lantern", page("lantern")], ["Skein", page("skein")], ["Hidewire", "#{page("hidewire")}  (talk as any of its members)"]]
      end

      # @return [Array<Hash>] descriptions, as Feeds::Platform has them
      def platforms
        DESCRIBED.map { |name| described(name) }
      end

      private

      def page(port) = "http://127.0.0.1:#{ports[port]}"

      # As docs/platforms has it, where it listens this time.
      #
      # @return [Hash]
      def described(name)
        text = File.read(File.join(PLATFORMS, "#{name}.json"))
        usual = OFFSETS.to_h { |part, offset| [(USUAL_PORT + offset).to_s, part] }
        JSON.parse(text.gsub(/(?<=127\.0\.0\.1:|"port": )\d+\b/) { |port| usual.key?(port) ? ports.fetch(usual[port], port).to_s : port })
      end

      def child(name, env, pace: PACE)
        variable = name.upcase
        Child.new(name, ["ruby", "standins/#{name.downcase}/run.rb"], log: @data.path("log", "#{name.downcase}.log"), rights: @rights,
          env: env.transform_values(&:to_s).merge("#{variable}_PACE" => @env.fetch("#{variable}_PACE", pace),
            "#{variable}_FILE" => @data.path("#{name.downcase}.jsonl")))
      end
    end
  end
end
