# frozen_string_literal: true

require_relative "../../error"
require_relative "kinds/alerts"
require_relative "kinds/captions"
require_relative "kinds/challenge"
require_relative "kinds/chat"
require_relative "kinds/clock"
require_relative "kinds/counter"
require_relative "kinds/flurry"
require_relative "kinds/goal"
require_relative "kinds/newest"
require_relative "kinds/now_line"
require_relative "kinds/picture"
require_relative "kinds/portraits"
require_relative "kinds/room_card"
require_relative "kinds/shout_out"
require_relative "kinds/space"
require_relative "kinds/text"
require_relative "kinds/video"
require_relative "kinds/voices"

module Bavard
  module Core
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
