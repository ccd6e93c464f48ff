# frozen_string_literal: true

require_relative "waiting_room"

module Bavard
  module Web
    # Where requests come in: the waiting room until the application is there.
    class Doorway
      def initialize(waits_for) = @room = WaitingRoom.new(waits_for)

      # @param app [#call]
      def open(app) = @app = app

      def call(env) = (@app || @room).call(env)
    end
  end
end
