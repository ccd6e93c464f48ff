# frozen_string_literal: true

require "json"
require "minitest/autorun"
require "tmpdir"
require_relative "../support/drawings"
require_relative "../../lib/bavard/pictures/import"

class PackTest < Minitest::Test
  Pack = Bavard::Pictures::Pack

  def opened(files) = Pack.open(Drawings.zip(files)) { |pack| yield pack }
  def refused(files) = assert_raises(Bavard::Error) { opened(files) { nil } }

  # @return [Array<Hash>] what an import tells
  def import(path)
    said = StringIO.new
    Dir.mktmpdir do |folder|
      cabinet = Bavard::Pictures::Cabinet.new(folder)
      yield cabinet if block_given?
      Bavard::Pictures::Import.new(cabinet, said).pack(path)
    end
    said.string.lines.map { |line| JSON.parse(line) }
  end

  def test_a_manifest_says_which_code_is_which_file
    files = {"pack/manifest.json" => Drawings.manifest([{code: ":wren:", file: "a.svg"}, {code: "sparkle", file: "b.svg", overlay: true, any_case: true}, {code: ":gone:", file: "c.svg"}]),
             "pack/a.svg" => Drawings.svg, "pack/b.svg" => Drawings.svg, "__MACOSX/._a.svg" => "x"}
    opened(files) do |pack|
      assert_equal ["Test pack", [[":wren:", false, false], ["sparkle", true, true]]], [pack.name, pack.items.map do |item|
        [item.code, item.overlay, item.any_case]
      end]
      assert_equal [["c.svg", "the manifest names it, but it is not in the pack"]], pack.refused
      assert_equal Drawings.svg, pack.items.first.read.call
    end
  end

  def test_without_one_names_are_the_codes
    opened({"Reed Warbler 2.png" => "x", "sub/egg.gif" => "y", "!!!.png" => "z"}) do |pack|
      assert_equal %w[:reed_warbler_2: :egg:], pack.items.map(&:code)
      assert_equal [["!!!.png", "its name gives no code"]], pack.refused
    end
  end

  def test_a_manifest_that_does_not_fit_is_refused_with_its_place
    {"{oh no" => "not JSON", Drawings.manifest([{code: "two words", file: "a"}]) => "/emotes/0/code", Drawings.manifest([], name: "") => "/name",
     '{"format":"other@9","name":"x","emotes":[{"code":"a","file":"b"}]}' => "/format", "[]" => "its beginning"}.each do |text, words|
      assert_includes refused({"manifest.json" => text}).message, words
    end
  end

  def test_what_is_no_zip
    path = File.join(Dir.mktmpdir, "x.zip")
    ["", "hello", "PK\u0003\u0004#{"x" * 100}", File.binread(Drawings.zip({"a.svg" => Drawings.svg}))[0..-30]].each do |bytes|
      File.binwrite(path, bytes)
      assert_equal "That is no ZIP that can be read.", assert_raises(Bavard::Error) { Pack.open(path) { nil } }.message
    end
  end

  def test_a_bomb_is_read_no_further_than_a_picture_may_go
    path = Drawings.zip({"bomb.png" => "\0" * (60 * 1024 * 1024), "a.svg" => Drawings.svg})
    assert_operator File.size(path), :<, 100_000
    said = import(path)
    assert_equal ["bomb.png", "it has more than 8 MB"], said.filter_map { |one| one["refused"] }.first
    assert_equal [":a:"], said.filter_map { |one| one["taken"] }.map { |taken| taken["code"] }
  end

  def test_a_zip_that_lies_about_a_size_is_caught
    path = Drawings.zip({"a.png" => "\0" * 100_000, "b.svg" => Drawings.svg})
    bytes = File.binread(path)
    File.binwrite(path, bytes.gsub([100_000].pack("V"), [10].pack("V")))
    said = import(path)
    assert_equal "a.png", said.filter_map { |one| one["refused"] }.first.first
    assert_equal 1, said.count { |one| one["taken"] }
  end

  def test_too_many_files
    assert_includes refused((0..Pack::MOST_ENTRIES).to_h { |number| ["#{number}.png", ""] }).message, "6000 is the most"
  end

  def test_lying_names_count_for_nothing
    said = import(Drawings.zip({"wren.png" => Drawings.svg, "egg.svg" => Drawings.png, "../../etc/passwd.gif" => Drawings.gif,
"page.png" => "<html>"}))
    assert_equal %w[:wren: :egg: :passwd:], said.filter_map { |one| one["taken"] }.map { |taken| taken["code"] }
    assert_equal [["page.png", "it is no PNG, GIF, APNG, WebP, SVG, AVIF or JPEG"]], said.filter_map { |one| one["refused"] }
    assert_equal({"done" => true}, said.last)
  end

  def test_where_there_is_no_room_that_is_said_and_where_it_cannot_be_kept_otherwise_that
    {Errno::ENOSPC => "no room on the disk", Errno::EROFS => "in its log why"}.each do |kind, words|
      said = nil
      _, logged = capture_io do
        said = import(Drawings.zip({"wren.svg" => Drawings.svg})) { |cabinet| cabinet.define_singleton_method(:keep) { |_| raise kind } }
      end
      assert_includes said.last["error"], words
      assert_includes logged, kind.name
    end
  end

  def test_one_code_twice_is_told
    said = import(Drawings.zip({"a/wren.svg" => Drawings.svg, "b/wren.png" => Drawings.png}))
    assert_equal [["b/wren.png", ":wren: is in it twice"]], said.filter_map { |one| one["refused"] }
  end
end
