# frozen_string_literal: true

require_relative "../../error"
require_relative "../look/house_style"
require_relative "look_document"

module Bavard
  module Core
    module Pieces
      # How a whole stage looks, as a document: a look for each kind of piece on it, and the show's colours and faces.
      #
      #   outfit = OwnOutfit.of(document, "Ours")
      #   OwnOutfit.read(outfit)["kinds"]["goal"]   # => what its goal has that is not as it comes
      module OwnOutfit
        FORMAT = "bavard/stage-look@1"

        module_function

        # Of several pieces of a kind, the first counts.
        #
        # @param document [Hash] of a stage
        # @return [Hash]
        def of(document, name)
          kinds = document["pieces"].reject { |piece| Pieces.kind(piece["kind"]).look_names.empty? }.uniq { |piece| piece["kind"] }
          {"format" => FORMAT, "name" => name, "house" => document["house"],
           "kinds" => kinds.to_h { |piece| [piece["kind"], LookDocument.of(piece, name)["set"]] }}
        end

        # @param given [Object] a document from anywhere
        # @return [Hash] the same, read
        # @raise [Bavard::Error] naming what does not fit
        def read(given)
          ours = given.is_a?(Hash) && given["format"] == FORMAT && given["kinds"].is_a?(Hash)
          raise Error.new("That is no look of a whole stage: its format is #{FORMAT}.", field: "format") unless ours

          kinds = given["kinds"].to_h { |kind, set| [kind, look(kind, set)] }
          {"format" => FORMAT, "name" => given["name"].to_s.scrub("")[0, LookDocument::LONGEST_NAME], "kinds" => kinds,
           "house" => Look::HouseStyle.read(given["house"])}
        end

        def look(kind, set) = LookDocument.read("format" => LookDocument::FORMAT, "kind" => kind, "set" => set)["set"]
        private_class_method :look
      end
    end
  end
end
