# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/own_code/code_path"

# A link as a code: drawn as the modules are, with the light ones around it that the standard wants.
class CodePathTest < Minitest::Test
  CodePath = Bavard::Core::OwnCode::CodePath
  LINK = "https://lanterns.example/show?of=tonight"

  # @return [Array<Array(Integer, Integer)>] column and row of each module that is covered, as often as it is
  def covered(path)
    path.scan(/M(\d+) (\d+)h(\d+)v1h-(\d+)z/).flat_map do |x, y, wide, back|
      assert_equal wide, back
      Array.new(wide.to_i) { |at| [x.to_i + at, y.to_i] }
    end
  end

  def test_it_covers_each_dark_module_once_and_nothing_else
    side, path = CodePath.of(LINK)
    rows = RQRCodeCore::QRCode.new(LINK, level: :m).modules
    dark = rows.each_with_index.flat_map { |row, y| row.each_index.select { |x| row[x] }.map { |x| [x + 4, y + 4] } }
    assert_equal rows.size + 8, side
    assert_equal dark, covered(path).sort_by(&:reverse)
    assert_equal path.length, path.scan(/M\d+ \d+h\d+v1h-\d+z/).sum(&:length)
  end

  def test_runs_are_as_long_as_they_can_be
    runs = CodePath.of(LINK).last.scan(/M(\d+) (\d+)h(\d+)/).map { |run| run.map(&:to_i) }
    runs.each_cons(2) { |(x, y, wide), (next_x, next_y)| assert_operator next_x, :>, x + wide if y == next_y }
  end

  def test_nothing_is_drawn_of_nothing_and_of_what_no_camera_reads
    assert_nil CodePath.of("")
    assert_nil CodePath.of("a" * 401)
    assert CodePath.of("a" * 400)
  end
end
