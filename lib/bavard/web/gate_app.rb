# frozen_string_literal: true

require_relative "../core/gate/ladder"
require_relative "station"

module Bavard
  module Web
    # What may go on screen.
    class GateApp < Station
      get "/" do
        @here = "gate"
        @gate = @record.gate
        erb :gate
      end

      post "/" do
        document = Core::Gate::Ladder.document(commands_on: params["commands_on"] == "1", prefixes: text(params["prefixes"]),
          left_out_on: params["left_out_on"] == "1", names: text(params["names"]))
        ask { |show| show.gate = document }
        json(done: true)
      end
    end
  end
end
