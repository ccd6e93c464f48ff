# frozen_string_literal: true

require "json"
require_relative "../../../lib/bavard/feeds/described"

# The examples of docs/platforms, as tests read them.
module Examples
  FOLDER = File.expand_path("../../../docs/platforms", __dir__)

  module_function

  def all = Dir[File.join(FOLDER, "*.json")].map { |file| File.basename(file, ".json") }
  def whole(name) = JSON.parse(File.read(File.join(FOLDER, "#{name}.json")))
  # Without its samples, which say what becomes of frames by what is written there.
  def document(name) = whole(name).except("samples")

  # @param base [String, nil] another address than the one that is written there
  def description(name, base: nil, **more)
    Bavard::Feeds::Described::Description.read(document(name).merge(base ? {"base" => base} : {}, more.transform_keys(&:to_s)))
  end
end
