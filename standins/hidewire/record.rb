# frozen_string_literal: true

# Speaks the conversations of demo/conversations/*.txt with espeak-ng and writes what was heard of it beside them, as
# levels with who truly spoke when.
#   ruby standins/hidewire/record.rb [file …]
# A file: "name: …", "people: login voice loudness-dB noise-dBov, …", then one turn a line: "login +400 what is said", where the
# number is the pause before it in milliseconds; below zero, it begins while the one before still talks.

require_relative "conversation"

module Hidewire
  # Makes a conversation from its text. The same every time: what is random comes of the text itself.
  class Record
    FOLDER = File.expand_path("../../demo/conversations", __dir__)
    # Quieter than that nobody hears a voice.
    HEARD = 48
    # A shorter pause, as between two sentences, belongs to what is said.
    LONGEST_PAUSE_MS = 400
    NAMES = {
      "odalys" => "Odalys Fenn", "ibrahim" => "Ibrahim Sarr", "sunniva" => "Sunniva Lund", "teo" => "Teo Marsh",
      "wilhelmina" => "Wilhelmina van der Rietbroek-Oosterschelde", "bram" => "Bram", "linnea" => "Linnea Holm",
      "oke" => "Oke", "ursel" => "Ursel", "kit" => "Kit"
    }.freeze
    # Keys and mugs: short, and louder than the noise.
    CLICK_EVERY_MS = 7000
    CLICK = 34

    Person = Struct.new(:voice, :gain_db, :noise)

    def initialize(file)
      @file = file
      lines = File.readlines(file, chomp: true).reject(&:empty?)
      @name = lines.shift.delete_prefix("name: ")
      @people = lines.shift.delete_prefix("people: ").split(",").to_h { |words| person(*words.split) }
      @turns = lines
      @random = Random.new(File.read(file).sum)
    end

    # @return [Conversation]
    def make
      @at_ms = 600
      clean = @people.transform_values { [] }
      truth = @people.transform_values { [] }
      @turns.each do |turn|
        login, pause, words = turn.split(" ", 3)
        speak(clean.fetch(login), truth.fetch(login), @people.fetch(login), @at_ms += pause.to_i, words)
      end
      length = (@at_ms / Sound::EVERY_MS) + 60
      levels = clean.to_h { |login, all| [login, noisy(all, length, @people.fetch(login))] }
      Conversation.new(@name, Sound::EVERY_MS, @people.keys.to_h { |login| [login, NAMES.fetch(login, login)] }, levels, truth)
    end

    private

    def person(login, voice, gain, noise) = [login, Person.new(voice, gain.to_i, noise.to_i)]

    def speak(clean, truth, person, from_ms, words)
      heard = Sound.levels(Sound.speak(words, voice: person.voice)).map { |level| (level - person.gain_db).clamp(0, Sound::SILENCE) }
      from = from_ms / Sound::EVERY_MS
      heard.each_with_index { |level, index| clean[from + index] = [clean[from + index] || Sound::SILENCE, level].min }
      stretches(heard, person).each { |first, last| add(truth, (from + first) * Sound::EVERY_MS, (from + last + 1) * Sound::EVERY_MS) }
      @at_ms = (from + (heard.rindex { |level| level < HEARD - person.gain_db } || 0)) * Sound::EVERY_MS
    end

    def add(truth, from_ms, to_ms)
      truth.any? && from_ms - truth.last[1] <= LONGEST_PAUSE_MS ? truth.last[1] = [truth.last[1], to_ms].max : truth << [from_ms, to_ms]
    end

    # From the voice alone, before there is noise.
    def stretches(heard, person)
      loud = heard.each_index.select { |index| heard[index] < HEARD - person.gain_db }
      loud.slice_when { |one, other| (other - one) * Sound::EVERY_MS > LONGEST_PAUSE_MS }.map { |all| [all.first, all.last] }
    end

    # Two powers heard at once, with what a microphone adds.
    def noisy(clean, length, person)
      next_click = @random.rand(CLICK_EVERY_MS)
      Array.new(length) do |index|
        next_click += CLICK_EVERY_MS + @random.rand(CLICK_EVERY_MS) if (click = index * Sound::EVERY_MS >= next_click)
        noise = person.noise + @random.rand(-3..3)
        together(clean[index] || Sound::SILENCE, click ? CLICK : noise)
      end
    end

    def together(one, other) = (-10 * Math.log10((10**(-one / 10.0)) + (10**(-other / 10.0)))).round.clamp(0, Sound::SILENCE)
  end
end

if $PROGRAM_NAME == __FILE__
  files = ARGV.empty? ? Dir[File.join(Hidewire::Record::FOLDER, "*.txt")] : ARGV
  files.each { |file| File.write(file.sub(/\.txt\z/, ".json"), "#{Hidewire::Record.new(file).make.to_json}\n") }
end
