# frozen_string_literal: true

require_relative "../lib/bavard/core/gate/rule_set"
require_relative "scene"

module Bench
  # Memory of one show that has much of everything: 50 000 emotes on 20 shelves, 10 000 stopped words, and 100 000 people who write, first once and
  # then a second time. What it had before anybody wrote stands beside it, and what an empty show takes.
  class FullShow
    EMOTES = 50_000
    SHELVES = 20
    WORDS = 10_000
    PEOPLE = 100_000
    AHEAD = 10_000
    PICTURE = "0" * 32
    GATE = Bavard::Core::Gate::Settings

    # empty_mb, worn_mb, once_mb, twice_mb:: of the application, resident
    def run
      @scene = Scene.new(at_most: 30)
      empty_mb = again { nil }
      worn_mb = again { fill }
      once_mb, twice_mb = [1, 2].map { |round| written(round) }
      {empty_mb:, worn_mb:, once_mb:, twice_mb:, emotes: EMOTES, words: WORDS, people: PEOPLE}
    ensure
      @scene&.stop
    end

    private

    def db = TestDatabase.db

    # @return [Integer] MB after a start, with a few lines read
    def again
      @scene.app.stop
      yield
      @scene.app.start
      say(200) { |number| "someone#{number % 20}" }
      memory_mb
    end

    def fill
      show_id = db[:shows].get(:id)
      db[:pictures].insert(id: PICTURE, width: 28, height: 28, frames: 1, made_at_ms: 0)
      SHELVES.times { |shelf| shelf(show_id, shelf) }
      words = Array.new(WORDS) { |number| "wo#{number.to_s(26).tr("0-9a-p", "a-z")}rd" }
      rules = Bavard::Core::Gate::RuleSet::DEFAULT["rules"].map do |rule|
        rule["kind"] == "stopped_words" ? rule.merge("on" => true, "words" => words.join("\n")) : rule
      end
      Bavard::Store::Shows.new(db).keep_gate(show_id, GATE::DEFAULT.merge("sets" => [{"name" => "Full", "rules" => rules}]))
    end

    def shelf(show_id, shelf)
      id = db[:shelves].insert(show_id:, name: "Shelf #{shelf}", position: shelf)
      codes = Array.new(EMOTES / SHELVES) { |number| [id, "code#{shelf}x#{number}", PICTURE] }
      db[:emotes].import(%i[shelf_id code picture_id], codes)
    end

    def written(round)
      say(PEOPLE) { |number| "person#{number}" }
      memory_mb.tap { |mb| warn "full show: round #{round}, #{mb} MB" }
    end

    # Says so many lines and waits until they are in the log.
    def say(count)
      before = logged
      count.times do |number|
        @said = (@said || 0) + 1
        @scene.typist.pass_on("@msgid=f#{@said} :#{yield number}!a@b PRIVMSG #dawn :seen at the reeds #{@said} code3x#{number % 2500}")
        (number % AHEAD).zero? && (sleep 0.1 until logged - before >= number - AHEAD)
      end
      sleep 0.1 until logged - before >= count
    end

    # No more than what came since the last look.
    def logged
      since, count = @counted || [0, 0]
      last, more = db[:lines].where { id > since }.get([Sequel.function(:max, :id).as(:last), Sequel.function(:count).*.as(:more)])
      @counted = [last || since, count + more]
      @counted.last
    end

    def memory_mb = File.read("/proc/#{@scene.app.pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024
  end
end
