# frozen_string_literal: true

require_relative "../../error"
require_relative "pieces/alerts"
require_relative "pieces/captions"
require_relative "pieces/challenge"
require_relative "pieces/chat"
require_relative "pieces/clock"
require_relative "pieces/counter"
require_relative "pieces/flurry"
require_relative "pieces/goal"
require_relative "pieces/newest"
require_relative "pieces/now_line"
require_relative "pieces/picture"
require_relative "pieces/portraits"
require_relative "pieces/room_card"
require_relative "pieces/shout_out"
require_relative "pieces/space"
require_relative "pieces/text"
require_relative "pieces/video"
require_relative "pieces/voices"

module Bavard
  module Core
    module Stage
      # The kinds of pieces there are.
      module Pieces
        ALL = [ChatPiece, AlertsPiece, GoalPiece, ChallengePiece, NewestPiece, CounterPiece, FlurryPiece, ShoutOutPiece, CaptionsPiece, VoicesPiece,
          PortraitsPiece, RoomCardPiece, PicturePiece, VideoPiece, TextPiece, ClockPiece, NowLinePiece, SpacePiece].freeze
        KINDS = ALL.to_h { |kind| [kind::KEY, kind] }.freeze
        # Those that show a voice room.
        VOICED = [VoicesPiece, PortraitsPiece, RoomCardPiece].map { |kind| kind::KEY }.freeze

        module_function

        # @return [Module] what knows pieces of this kind
        # @raise [Bavard::Error]
        def kind(name)
          KINDS[name] || raise(Error.new("There is no piece of the kind “#{name}”.", field: "kind", value: name))
        end

        # @return [String] how a piece is called: as the host calls it, or by its kind
        def label(piece)
          called = piece["called"].to_s
          called.empty? ? kind(piece["kind"])::LABEL : called
        end
      end
    end
  end
end
