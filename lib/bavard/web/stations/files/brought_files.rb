# frozen_string_literal: true

require_relative "../../../error"
require_relative "../../../media/film"
require_relative "../../../media/sound"
require_relative "../../../unwatched"
require_relative "../../../pictures/typeface"
require_relative "../../../store/files"

module Bavard
  module Web
    # Pictures, films, sounds, fonts and backdrops that somebody brings for a show: made anew, and kept.
    class BroughtFiles
      LARGEST_BYTES = Bavard::Media::Film::LARGEST_BYTES
      KINDS = %w[picture backdrop film font sound].freeze
      # Those that have a name and a shelf of the host's own.
      SHELVED = %w[film sound].freeze

      # @param site [Site]
      # @param watch [#told, #stopped?] as Bavard::Unwatched
      def initialize(site, show_id, watch: Unwatched)
        @site = site
        @show_id = show_id
        @watch = watch
      end

      # @param kind [String] one of KINDS
      # @param name [String] as the file is called
      # @param file [IO] with a path
      # @return [Store::Files::Kept]
      # @raise [Bavard::Error] naming the file and the reason
      def keep(kind, name, file)
        raise Error.new("Bavard takes pictures, films, sounds and fonts here.", field: "kind", value: kind) unless KINDS.include?(kind)

        @site.stores.ceilings.room_for_file(@show_id, file.size)
        kept = made(kind, name, file)
        @site.stores.files.keep(@show_id, kept, @site.clock.call)
      rescue Error => error
        raise error if error.field || error.is_a?(Stopped)

        raise error.in_words("“#{name[0, 80]}” was not taken: #{error.reason}.", field: "file")
      end

      # A picture of somebody, or of what a cue shows.
      #
      # @param name [String] as it is called, or its address
      # @return [String] its id
      # @raise [Bavard::Error] naming the picture and the reason
      def figure(name, bytes)
        @site.stores.ceilings.room_for_file(@show_id, bytes.bytesize)
        made = @site.pictures.make(bytes, "figure", @show_id, watch: @watch)
        kept = Store::Files::Kept.new(id: made.id, kind: "figure", name:, bytes: bytes.bytesize, width: made.width, height: made.height)
        @site.stores.files.keep(@show_id, kept, @site.clock.call)
        made.id
      rescue Error => error
        raise error if error.field || error.is_a?(Stopped)

        raise error.in_words("“#{name[0, 80]}” was not taken: #{error.reason}.", field: "file")
      end

      private

      def made(kind, name, file)
        return picture(kind, name, file) if %w[picture backdrop].include?(kind)

        @site.media.take(@show_id) do
          case kind
          when "film" then film(name, file)
          when "font" then font(name, file)
          else sound(name, file)
          end
        end
      end

      def font(name, file)
        made = Bavard::Pictures::Typeface.new.make(file.read, into: @site.faces)
        Store::Files::Kept.new(id: made.id, kind: "font", name: File.basename(name, ".*"), bytes: file.size)
      end

      def picture(kind, name, file)
        made = @site.pictures.make(file.read, "stage", @show_id, watch: @watch)
        Store::Files::Kept.new(id: made.id, kind:, name:, bytes: file.size, width: made.width, height: made.height)
      end

      def sound(name, file)
        made = Bavard::Media::Sound.new.make(file.path, into: @site.sounds)
        Store::Files::Kept.new(id: made.id, kind: "sound", name: File.basename(name, ".*"), bytes: file.size,
          more: {"seconds" => made.seconds, "loudness" => made.loudness, "was" => made.was, "peaks" => made.peaks})
      end

      def film(name, file)
        made = Bavard::Media::Film.new.make(file.path, into: @site.films, watch: @watch)
        Store::Files::Kept.new(id: made.id, kind: "film", name:, bytes: file.size, width: made.width, height: made.height,
          more: {"seconds" => made.seconds})
      end
    end
  end
end
