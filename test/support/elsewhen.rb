# frozen_string_literal: true

require_relative "../../tools/suite/memory"

# Where it seems to be another time (AT of bin/test), a browser and Redis cannot run and nginx loses what its publishers send: they keep this
# computer's clock, as machines of their own do (test/ops). A browser's pages are told that time instead.
module Elsewhen
  BY_S = ENV["AT_OFFSET_S"]&.to_i
  SCRIPT = File.join(__dir__, "elsewhen.js")

  module_function

  # @return [Hash] for what is begun, so that it has this computer's clock
  def env = BY_S ? {"LD_PRELOAD" => nil, "FAKETIME" => nil} : {}

  # @return [Time] by this computer's clock
  def here = Time.now - BY_S.to_i

  def scripts
    return [] unless BY_S

    path = File.join(Suite::Memory.root, "elsewhen-#{Process.pid}.js")
    File.write(path, File.read(SCRIPT).gsub("BY_MS", (BY_S * 1000).to_s))
    [path]
  end
end
