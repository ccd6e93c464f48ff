# frozen_string_literal: true

require "did_you_mean"
require_relative "pieces"

module Bavard
  module Core
    module Pieces
      # What may be added to an air link to change its look on that screen alone, read in any case and spelling
      # that can be understood.
      #
      #   LinkOptions.read({"Text-Size" => "30PX", "plaet" => "0", "sparkle" => "1"})
      #   # => Result(properties: {"text_size_px" => 30, "plate_opacity" => 0}, not_understood: ["sparkle=1"])
      #   LinkOptions.read({"goal.size" => "40"}).of   # => {"goal" => {"text_size_px" => 40}}
      module LinkOptions
        # properties:: of every piece that has them, by name; of:: of some alone, by id or kind
        # pieces:: ids and kinds of those that are drawn; none: all of them
        Result = Struct.new(:properties, :not_understood, :pieces, :of)

        # Every name an option is known by, without case, spaces, dashes and underscores.
        NAMES = {
          "face" => "text_face", "font" => "text_face", "typeface" => "text_face",
          "size" => "text_size_px", "textsize" => "text_size_px", "fontsize" => "text_size_px", "sizepx" => "text_size_px",
          "weight" => "text_weight", "fontweight" => "text_weight",
          "text" => "text_colour", "textcolour" => "text_colour", "textcolor" => "text_colour",
          "colour" => "text_colour", "color" => "text_colour",
          "name" => "one_name_colour", "names" => "one_name_colour", "namecolour" => "one_name_colour",
          "namecolor" => "one_name_colour",
          "plate" => "plate_opacity", "opacity" => "plate_opacity", "plateopacity" => "plate_opacity",
          "platecolour" => "plate_colour", "platecolor" => "plate_colour",
          "newest" => "newest", "newestat" => "newest", "form" => "form", "pictures" => "form",
          "marks" => "marks", "mark" => "marks", "platforms" => "marks", "badges" => "badges", "badge" => "badges",
          "avatars" => "avatars", "avatar" => "avatars", "faces" => "avatars", "times" => "times", "time" => "times", "emotes" => "emotes",
          "emoji" => "emotes",
          "lines" => "at_most", "atmost" => "at_most", "most" => "at_most", "linesatmost" => "at_most",
          "seconds" => "stay_ms", "stay" => "stay_ms", "stays" => "stay_ms", "staysfor" => "stay_ms"
        }.freeze
        # What other kinds than chat can be told.
        OF_ALL = %w[text_face text_size_px text_weight text_colour plate_opacity plate_colour form].freeze
        # Parts of a line, each there or not on that screen.
        PARTS = %w[marks badges avatars times emotes names].freeze
        OFF = %w[0 no none off hide hidden without false].freeze
        ON = %w[1 yes on show shown with true].freeze
        # Which pieces are drawn on that screen, by their ids or kinds.
        ONLY = %w[pieces piece only].freeze
        COUNTED = /\A\s*(\d+(?:[.,]\d+)?)\s*(?:s|sec|secs|seconds?|lines?)?\s*\z/i
        PIECE = /\A[a-z_]{1,20}\d{0,6}\z/
        FAR = 2
        MOST = 40

        module_function

        # @param query [Hash{String => String}] of the link
        # @return [Result] values as pieces keep them, by property; what could not be read, as it stands in the link
        def read(query)
          result = Result.new({}, [], [], {})
          query.first(MOST).each { |name, given| set_option(name.to_s, given.to_s, result) }
          result
        end

        def set_option(name, given, result)
          raise Error, "A link knows no names of a show's own." if given.start_with?("house:")

          piece, option = whose(name)
          known = nearest(fold(option))
          return result.pieces.concat(pieces(given)) if piece.nil? && ONLY.include?(known)

          set = part?(known, fold(given)) ? part(known, fold(given)) : value(NAMES.fetch(known), given)
          return result.properties.merge!(set) unless piece

          knows(piece, set)
          (result.of[piece] ||= {}).merge!(set)
        rescue Error, KeyError
          result.not_understood << "#{name}=#{given}"[0, 60]
        end

        # @return [Array(String, String)] the piece or kind that it is said of, or nil, and the option
        def whose(name)
          piece, option = name.split(".", 2)
          option ? [pieces(piece).first, option] : [nil, name]
        end

        def value(name, given)
          property = ChatPiece.properties.fetch(name)
          set = {name => property.read(reworded(name, given))}
          name == "one_name_colour" ? set.merge("name_colour" => "one") : set
        end

        # What it counts may be said with it.
        def reworded(name, given)
          case name
          when "text_face" then face(given)
          when "at_most" then given[COUNTED, 1] || given
          when "stay_ms" then given[COUNTED, 1]&.then { |seconds| (seconds.tr(",", ".").to_r * 1000).to_i } || ""
          else given
          end
        end

        # @raise [Bavard::Error] where it has no such thing
        def knows(piece, set)
          kind = KINDS.fetch(piece[/\A[a-z_]+/])
          return if kind == ChatPiece || set.keys.all? { |name| OF_ALL.include?(name) && kind.properties.key?(name) }

          raise Error, "That piece has no such thing."
        end

        # Names may have a colour as well, which says that they are there.
        def part?(known, given) = PARTS.include?(known == "names" ? known : NAMES[known]) && [*OFF, *ON].include?(given)

        def part(known, given)
          name = NAMES[known] == "one_name_colour" ? "names" : NAMES.fetch(known)
          choices = ChatPiece.properties.fetch(name).schema["enum"]
          {name => OFF.include?(given) ? "none" : choices.find { |choice| choice != "none" }}
        end

        # @raise [Bavard::Error]
        def pieces(given)
          asked = given.downcase.split(/[\s,+]+/).reject(&:empty?)
          known = asked.all? { |one| one.match?(PIECE) && KINDS.key?(one[/\A[a-z_]+/]) }
          raise Error, "There is no such piece." unless known && asked.any?

          asked.uniq
        end

        # The name itself, or the one known name that is a slip of the finger away.
        def nearest(name)
          return name if NAMES.key?(name) || ONLY.include?(name) || name.length < 4

          near = NAMES.keys.select { |known| known.length > 3 }
            .map { |known| [DidYouMean::Levenshtein.distance(known, name), known] }.min
          if near[0] <= (name.length > 5 ? FAR : 1) || swapped?(near[1], name)
            near[1]
          else
            name
          end
        end

        def swapped?(known, name)
          known.chars.sort == name.chars.sort && DidYouMean::Levenshtein.distance(known, name) <= FAR
        end

        def face(given)
          Palette::Faces::SHIPPED.keys.find { |face| fold(face) == fold(given) } ||
            Palette::Faces::SHIPPED.keys.find { |face| fold(given).length > 3 && fold(face).start_with?(fold(given)) } || given
        end

        def fold(text)
          text.downcase.gsub(/[^a-z0-9]/, "")
        end

        private_class_method :whose, :value, :reworded, :knows, :part?, :part, :pieces, :set_option, :nearest, :swapped?, :face, :fold
      end
    end
  end
end
