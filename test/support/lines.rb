# frozen_string_literal: true

require_relative "../../lib/bavard/core/chat/line"
require_relative "../../lib/bavard/core/chat/placed"
require_relative "../../lib/bavard/core/intake"

# Makes lines for tests.
module Lines
  module_function

  def line(id, text = "line #{id}", login: "mudlark7", name: nil, at_ms: id, platform_id: nil, feed_id: 1, action: false, colour: nil, badges: [],
           emotes: nil)
    said = Bavard::Core::Said.new(login, name, colour, badges, text, action, false, emotes)
    intake = Bavard::Core::Intake.new(:line, feed_id, platform_id, nil, at_ms, said)
    Bavard::Core::Chat::Line.from(intake, id:)
  end
end
