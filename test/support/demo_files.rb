# frozen_string_literal: true

require "digest"

# The demo's pictures and sounds, made by the first test that needs them and kept for the others, as long as they are the same.
module DemoFiles
  ROOT = File.expand_path("../..", __dir__)
  MADE_BY = %w[demo/files.rb lib/bavard/pictures/*.rb lib/bavard/media/*.rb demo/pictures/*/* demo/sounds/*].freeze

  module_function

  # @return [String] a folder
  def folder
    @folder ||= File.join(ROOT, "tmp/test/demo-#{digest}")
  end

  def digest
    files = MADE_BY.flat_map { |pattern| Dir[File.join(ROOT, pattern)] }.sort
    Digest::SHA256.hexdigest(files.map { |file| Digest::SHA256.file(file).hexdigest }.join)[0, 16]
  end
  private_class_method :digest
end
