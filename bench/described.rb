# frozen_string_literal: true

require "json"
require_relative "../lib/bavard/feeds/described"
require_relative "cpu"
require_relative "steal"
require_relative "written_parser"

module Bench
  # Platforms that are described: what reading by a description costs against a parser that was written for the same items, how many lines
  # a description of thirty kinds reads from their bytes on one core; and frames that nobody would send, through each example.
  class Described
    include Cpu

    RUNS = 100
    ITEMS = 600
    KINDS = 30
    # For each example.
    FRAMES = 1_000_000
    FOLDER = File.expand_path("../docs/platforms", __dir__)
    # As Lantern sends them; the same is read by both.
    LANTERN = {
      "format" => "bavard-platform/1", "key" => "lantern", "name" => "Lantern", "base" => "https://lantern.example",
      "poll" => {"ask" => "/messages{?page}", "items" => "items", "keep" => {"page" => "next_page"}},
      "reads" => [
        {"is" => "line", "when" => "type == 'message'", "id" => "id", "time" => "at", "login" => "author.login", "name" => "author.name",
         "colour" => "author.colour", "text" => "text", "badges" => {"at" => "author.badges", "name" => "kind", "picture" => "picture"},
         "avatar" => "author.avatar", "action" => "me", "first" => "first",
         "emotes" => {"ranges" => "emotes", "from" => "at", "length" => "length", "picture" => "picture"},
         "reply" => {"id" => "reply_to.id", "name" => "reply_to.name", "text" => "reply_to.text"}},
        {"is" => "delete", "when" => "type == 'deleted'", "id" => "target"}
      ]
    }.freeze

    def run
      least = {ours: Float::INFINITY, parser: Float::INFINITY, thirty: Float::INFINITY}
      _, steal = Steal.around do
        RUNS.times { ways.each { |name, way| least[name] = [least[name], cpu(&way)].min } }
      end
      {ratio_to_parser: (least[:ours] / least[:parser]).round(2), us_per_line: (least[:ours] / ITEMS * 1e6).round(1),
       thirty_kinds_lines_per_s: (ITEMS / least[:thirty]).round, steal_percent: steal.round(1)}
    end

    # @param count [Integer] frames for each example
    # @return [Hash] how many raised, and what memory there was before and afterwards
    def frames(count)
      random = Random.new(1)
      examples = Dir[File.join(FOLDER, "*.json")].map { |file| [JSON.parse(File.read(file)), Bavard::Feeds::Described::Description.load(file)] }
      before = memory_mb
      raised = examples.sum { |document, description| mutated(document, description, count, random) }
      forged = examples.sum { |document, description| claims(document, description, count / CLAIMS_SHARE, random) }
      {frames: count * examples.size, raised:, forged:, mb_before: before, mb_after: memory_mb}
    end

    private

    def ways
      @ways ||= begin
        items = (0...ITEMS).map { |number| item(number) }
        reading = Bavard::Feeds::Described::Description.read(LANTERN).reading
        {ours: -> { items.each { |one| reading.read(one, 1, 1).intake or raise "a line was lost" } },
         parser: -> { items.each { |one| WrittenParser.intake(one, 1, 1, history: false) or raise "a line was lost" } }, thirty: thirty}
      end
    end

    def thirty
      others = (0...(KINDS - 1)).map do |number|
        {"is" => "delete", "when" => number.odd? ? "type == 'kind#{number}'" : "sort == 'x' && n > `#{number}`", "id" => "id"}
      end
      description = Bavard::Feeds::Described::Description.read(LANTERN.merge("reads" => others + LANTERN["reads"].first(1)))
      bytes = (0...ITEMS).map { |number| JSON.generate("items" => [item(number)]) }
      lambda do
        bytes.each do |text|
          description.transport.items(Bavard::Feeds::Given.json(text)).each { |one| description.reading.read(one, 1, 1).intake or raise "a line was lost" }
        end
      end
    end

    def item(number)
      {"type" => "message", "id" => "m#{number}", "at" => "2026-11-24T05:52:00.250Z", "text" => "is that a reed warbler or a marsh warbler #{number}",
       "author" => {"login" => "viewer#{number % 90}", "name" => "Viewer #{number % 90}", "colour" => "#63c58a", "avatar" => "https://lantern.example/a.png",
                    "badges" => [{"kind" => "subscriber/12", "picture" => "https://lantern.example/b.png"}]},
       "emotes" => (number % 3).zero? ? [{"at" => 3, "length" => 4, "picture" => "https://lantern.example/e.png"}] : []}
    end

    # What was recorded, with one thing in it that is another.
    def mutated(document, description, count, random)
      frames = document["samples"].map { |sample| sample["frame"] }
      (0...count).count do |number|
        Bavard::Feeds::Described::Told.of(description, changed(JSON.parse(JSON.generate(frames[number % frames.size])), random))
        false
      rescue StandardError
        true
      end
    end

    # What viewers write says who they are: in how many frames that made them anything else, or worth anything.
    def claims(document, description, count, random)
      items = document["samples"].flat_map { |sample| items_of(description, sample["frame"]) }.grep(Hash)
      (0...count).count do |number|
        item = items[number % items.size]
        read = description.reading.read(item, nil, 0)
        next false unless read.intake && SAID.include?(read.intake.kind)

        lying = document["irc"] ? said_otherwise(item, random) : lied(item, document["reads"][read.rule.place], random)
        worth(description.reading.read(lying, nil, 0)) != worth(read)
      end
    end

    def lied(item, rule, random)
      written = CLAIMED.filter_map { |field| steps(rule[field]) }
      written.reduce(item) { |one, at| with(one, at, LIES.sample(random:) + LIES.sample(random:)) }
    end

    # Of IRC it is the last of its words, and tags that whoever writes can set.
    def said_otherwise(item, random)
      lie = LIES.sample(random:) + LIES.sample(random:)
      claimed = item["tags"].transform_keys { |tag| "+#{tag}" }.except("+msgid", "+time").transform_values { lie }
      item.merge("params" => [item["params"].first, lie], "tags" => item["tags"].merge(claimed))
    end

    def items_of(description, frame)
      frame = description.transport.frame(frame) if description.transport.respond_to?(:frame)
      description.transport.items(frame).map { |item| description.reading.joined(item, frame) }
    end

    def steps(place) = (place.is_a?(Hash) ? place["at"] : place).then { |path| path.split(".") if path&.match?(/\A[\w.]+\z/) }
    def with(item, at, words) = item.merge(at.first => at.size == 1 ? words : with(Bavard::Feeds::Given.object(item[at.first]), at.drop(1), words))
    def worth(read) = Bavard::Feeds::Described::Told.fields(read.intake).values_at("badges", "paid", "number", "first", "login").push(read.rule.is)

    SAID = %i[line event].freeze
    CLAIMED = %w[text name].freeze
    # One in so many frames is one of those.
    CLAIMS_SHARE = 10
    LIES = ["moderator", "[host]", "mod=1;", '{"roles":["host"]}', " host,mod ", "\u0000owner", "100 EUR", "$5.00", "first", "@badges=host/1 "].freeze
    private_constant :SAID, :CLAIMED, :LIES, :CLAIMS_SHARE

    ODD = [nil, true, -1, 1e300, "", "\u0000", "moderator", [], {}, [[]], {"a" => {"b" => []}}, "9" * 400, "\u202e<b>[:x:]"].freeze
    private_constant :ODD

    def changed(value, random)
      case value
      when Hash
        return ODD.sample(random:) if value.empty?

        key = value.keys.sample(random:)
        random.rand < 0.3 ? value.merge(key => ODD.sample(random:)) : value.merge(key => changed(value[key], random))
      when Array then if value.empty?
                        ODD.sample(random:)
                      else
                        value.each_with_index.map do |one, at|
                          at == random.rand(value.size) ? changed(one, random) : one
                        end
                      end
      when String then value.size > LONG && random.rand < 0.8 ? spoiled(value, random) : ODD.sample(random:)
      else ODD.sample(random:)
      end
    end

    LONG = 30
    private_constant :LONG

    # A message as text, with bytes in it that are others.
    def spoiled(text, random)
      bytes = text.b
      random.rand(1..4).times { bytes.setbyte(random.rand(bytes.bytesize), random.rand(256)) }
      bytes.force_encoding(Encoding::UTF_8).scrub
    end

    def memory_mb = File.read("/proc/self/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024
  end
end
