# frozen_string_literal: true

require "json"

module Bavard
  module Core
    module Voice
      # What a few people said, as levels: for each of them one every few milliseconds, in −dBov as RFC 6464 sends it (0 at
      # its loudest, 127 for silence), and when they truly talked.
      class Recording
        SILENCE = 127
        # person:: login
        Level = Struct.new(:at_ms, :person, :level)

        attr_reader :name, :every_ms, :people, :levels, :truth, :length_ms

        # @param text [String] as {#to_json} wrote it
        # @return [Recording]
        def self.parse(text)
          given = JSON.parse(text)
          levels = given.fetch("levels").transform_values { |hex| [hex].pack("H*").bytes }
          new(given.fetch("name"), given.fetch("every_ms"), given.fetch("people"), levels, given.fetch("talking"))
        end

        # @param folder [String] of files
        # @return [Hash{String => Recording}]
        def self.all(folder)
          Dir[File.join(folder, "*.json")].to_h { |file| [File.basename(file, ".json"), parse(File.read(file))] }
        end

        # @param people [Hash{String => String}] names by login
        # @param levels [Hash{String => Array<Integer>}]
        # @param truth [Hash{String => Array<Array(Integer, Integer)>}] from and to, in milliseconds
        def initialize(name, every_ms, people, levels, truth)
          @name = name
          @every_ms = every_ms
          @people = people
          @levels = levels
          @truth = truth
          @length_ms = levels.each_value.map(&:size).max.to_i * every_ms
        end

        # @return [Hash{String => Integer}] at a moment; it begins again at its end
        def at(ms)
          index = (ms % length_ms) / every_ms
          levels.transform_values { |all| all[index] || SILENCE }
        end

        # @yieldparam [Level] all, in their order
        def each
          (0...(length_ms / every_ms)).each do |index|
            levels.each { |person, all| yield Level.new(index * every_ms, person, all[index] || SILENCE) }
          end
        end

        def to_json(*)
          hex = levels.transform_values { |all| all.map { |one| format("%02x", one) }.join }
          JSON.generate(name:, every_ms:, people:, talking: truth, levels: hex)
        end
      end
    end
  end
end
