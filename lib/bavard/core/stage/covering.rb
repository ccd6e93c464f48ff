# frozen_string_literal: true

require_relative "../pieces/pieces"

module Bavard
  module Core
    module Stage
      # Which pieces cannot be seen, by where they stand: outside of the picture, under a picture or film, or over the camera.
      #
      #   Covering.findings(document).first.how   # => :outside
      module Covering
        # From this share on somebody would miss it.
        OUTSIDE = 0.3
        UNDER = 0.5
        OVER = 0.4
        # What nothing can be seen through, and what stands in for the camera.
        COVERS = %w[picture video].freeze
        CAMERA = "space"
        # What flies, and what is meant to lie over or under others.
        ANYWHERE = [*COVERS, CAMERA, "flurry", "alerts", "shout_out"].freeze
        # how:: :outside, :under or :over; by:: the other piece's label, or nil; percent:: how much of it; moved:: its place inside, or nil
        Finding = Struct.new(:piece, :label, :how, :by, :percent, :moved, keyword_init: true)

        module_function

        # @param document [Hash]
        # @return [Array<Finding>] at most one of each piece, from back to front
        def findings(document)
          pieces = document["pieces"].reject { |piece| piece["hidden"] }
          pieces.each_with_index.filter_map do |piece, index|
            outside(piece, document) || under(piece, pieces.drop(index + 1)) || over_camera(piece, pieces.first(index))
          end
        end

        # @param one, other [Hash] with x, y, width, height
        # @return [Float] which share of the one lies in the other
        def share(one, other)
          wide, high = %w[x y].zip(%w[width height]).map do |at, length|
            [[one[at] + one[length], other[at] + other[length]].min - [one[at], other[at]].max, 0].max
          end
          (wide * high).fdiv(one["width"] * one["height"])
        end

        def outside(piece, document)
          picture = {"x" => 0, "y" => 0, **document.slice("width", "height")}
          share = 1 - share(piece, picture)
          found(piece, :outside, share, moved: inside(piece, document)) if share >= OUTSIDE
        end

        def inside(piece, document)
          {"x" => %w[x width], "y" => %w[y height]}.transform_values do |(at, length)|
            piece[at].clamp(0, [document[length] - piece[length], 0].max)
          end
        end

        # Of one side: what stands behind the camera is under nothing that is in front of it.
        def under(piece, in_front)
          return if ANYWHERE.include?(piece["kind"])

          cover = in_front.find { |one| COVERS.include?(one["kind"]) && one["side"] == piece["side"] && share(piece, one) >= UNDER }
          found(piece, :under, share(piece, cover), by: cover) if cover
        end

        def over_camera(piece, behind)
          return if ANYWHERE.include?(piece["kind"]) || piece["side"] == "behind"

          camera = behind.find { |one| one["kind"] == CAMERA && share(one, piece) >= OVER }
          found(piece, :over, share(camera, piece), by: camera) if camera
        end

        def found(piece, how, share, by: nil, moved: nil)
          Finding.new(piece: piece["id"], label: Pieces.label(piece), how:, by: by && Pieces.label(by), percent: (share * 100).round, moved:)
        end
        private_class_method :outside, :inside, :under, :over_camera, :found
      end
    end
  end
end
