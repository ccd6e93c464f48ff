# frozen_string_literal: true

require_relative "../../lib/bavard/core/voice/recording"
require_relative "sound"

module Hidewire
  # What its members are heard saying.
  Conversation = Bavard::Core::Voice::Recording
end
