# frozen_string_literal: true

require "fileutils"
require_relative "../lib/bavard/media/sound"
require_relative "../lib/bavard/pictures/cabinet"
require_relative "../lib/bavard/pictures/workshop"

module Bavard
  module Demo
    # The demo's emotes, faces and sounds, made anew as if somebody had brought them. Nothing of it touches the database: the show is
    # made once all of them are there.
    class Files
      HERE = __dir__
      # What one of them is made of, and what it came to be. name:: without its ending
      Picture = Struct.new(:name, :id, :width, :height, :frames)
      # A folder with what was made earlier, for tests, which start more often than hosts.
      KEPT = "BAVARD_DEMO_FILES"
      MANIFEST = "demo.marshal"

      attr_reader :emotes, :faces, :cards, :sounds

      # @param data [Start::DataFolder]
      # @param kept [String, nil] a folder
      def initialize(data, kept: ENV.fetch(KEPT, nil))
        @data = data
        @kept = kept unless kept.to_s.empty?
      end

      # Pictures are made by programs of their own, as many beside each other as this machine has processors for.
      #
      # @return [Files]
      def make
        return self if take_kept

        emotes, faces, cards, sounds = [-> { pictures("emotes", "emote") }, -> { pictures("cast", "figure") },
          -> { pictures("emotes", "figure", %w[avocet heron]) }, -> { made_sounds }]
          .map { |work| Thread.new(&work).tap { |thread| thread.report_on_exception = false } }.map(&:value)
        @emotes = emotes
        @faces = faces
        @cards = cards
        @sounds = sounds
        keep
        self
      end

      # @return [String] of a sound as it came
      def self.sound(name) = File.join(HERE, "sounds/#{name}.ogg")

      private

      # @return [Hash{String => Picture}] by name
      def pictures(folder, purpose, names = nil)
        workshop = Pictures::Workshop.new
        cabinet = Pictures::Cabinet.new(@data.path("pictures"))
        files = Dir[File.join(HERE, "pictures", folder, "*")].select { |file| names.nil? || names.include?(File.basename(file, ".*")) }
        files.to_h do |file|
          made = cabinet.keep(workshop.make(File.binread(file), purpose))
          name = File.basename(file, ".*")
          [name, Picture.new(name, made.id, made.width, made.height, made.frames)]
        end
      ensure
        workshop&.stop
      end

      # @return [Hash{String => Media::Sound::Made}] by name
      def made_sounds
        Dir[File.join(HERE, "sounds/*.ogg")].to_h do |path|
          [File.basename(path, ".ogg"), Media::Sound.new.make(path, into: @data.path("sounds"))]
        end
      end

      def keep
        return unless @kept

        FileUtils.mkdir_p(@kept)
        %w[pictures sounds].each { |folder| FileUtils.cp_r(@data.path(folder), @kept) }
        File.binwrite(File.join(@kept, MANIFEST), Marshal.dump([@emotes, @faces, @cards, @sounds]))
      end

      # @return [Boolean] whether there were some
      def take_kept
        manifest = @kept && File.join(@kept, MANIFEST)
        return false unless manifest && File.exist?(manifest)

        @emotes, @faces, @cards, @sounds = Marshal.load(File.binread(manifest)) # rubocop:disable Security/MarshalLoad -- written above
        %w[pictures sounds].each { |folder| FileUtils.cp_r(File.join(@kept, folder), @data.root) }
        true
      end
    end
  end
end
