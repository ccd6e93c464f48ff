# frozen_string_literal: true

module Bavard
  module Live
    # What a show finds in its mailbox, besides FeedLane::Heard.
    module Messages
      # A page asks: the show runs the work and puts what comes of it into the answer.
      Question = Struct.new(:work, :answer)
      # A connection of a feed brings something. runner:: whose it is
      Brought = Struct.new(:lane, :runner, :intake)
      # A page that shows a stage did something. what:: :opened, :heard or :closed; text:: what was heard, or nil
      ScreenDid = Struct.new(:desk, :what, :connection, :text)
      # The picture at this address is there now.
      PictureCame = Struct.new(:address)
    end
  end
end
