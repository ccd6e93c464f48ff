# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/chat/person"
require_relative "../../../lib/bavard/core/contrast/clearer"
require_relative "../../../lib/bavard/core/contrast/names"
require_relative "../../../lib/bavard/core/stage/document"

class LegibilityTest < Minitest::Test
  Legibility = Bavard::Core::Contrast::Legibility
  Clearer = Bavard::Core::Contrast::Clearer
  Patches = Bavard::Core::Contrast::Patches
  Colour = Bavard::Core::Palette::Colour
  # Colours that viewers have chosen for themselves.
  GIVEN = %w[#1111aa #ee2222 #22dd66 #ffee00].freeze

  def piece(values = {})
    document = Bavard::Core::Stage::Document
    document.drawn(Bavard::Core::Pieces::ChatPiece.build("chat1", {"name_colour" => "one"}.merge(values)), document.empty["house"])
  end

  # A grid of 4 × 2: dark on the left, bright on the right.
  def patches
    row = ([[10, 12, 20]] * 2) + ([[250, 240, 230]] * 2)
    Patches.read([4, 2].pack("nn") + (row + row).flatten.pack("C*"))
  end

  def on(box, size: [400, 200]) = patches.under(box, on: size)

  def test_on_an_opaque_plate_it_is_the_contrast_of_the_two_colours
    values = {"text_colour" => "#ffffff", "plate_colour" => "#10151a", "plate_opacity" => 100, "one_name_colour" => "#ffffff"}
    assert_in_delta Colour.parse("#ffffff").contrast_ratio(Colour.parse("#10151a")), Legibility.new(piece(values), on([0, 0, 400, 200])).worst.ratio, 0.01
  end

  def test_without_a_plate_it_is_the_contrast_with_the_picture_where_that_is_worst
    legibility = Legibility.new(piece("plate_for" => "none", "text_colour" => "#ffffff"), on([0, 0, 400, 200]))
    assert_in_delta Colour.parse("#ffffff").contrast_ratio(Colour.parse("#faf0e6")), legibility.worst.ratio, 0.01
    assert_operator legibility.worst.patch.x, :>=, 200
    assert_equal "poor", legibility.word
    assert_operator Legibility.new(piece("plate_for" => "none", "names" => "none"), on([0, 0, 150, 200])).worst.ratio, :>, 15
  end

  def test_what_is_thinner_lets_more_of_the_picture_through
    ratios = [100, 90, 80, 70, 60, 50].map { |opacity| Legibility.new(piece("plate_opacity" => opacity), on([250, 0, 100, 100])).worst.ratio }
    assert_equal ratios.sort.reverse, ratios
  end

  def test_the_part_that_is_hardest_to_read_is_named
    legibility = Legibility.new(piece("one_name_colour" => "#20262c", "plate_opacity" => 100), on([0, 0, 400, 200]))
    assert_equal "name", legibility.worst.part
    hidden = Legibility.new(piece("one_name_colour" => "#20262c", "plate_opacity" => 100, "names" => "none"), on([0, 0, 400, 200]))
    assert_equal "text", hidden.worst.part
  end

  def test_times_and_the_plates_of_people_count_where_they_are_seen
    time = {"time_colour" => "#20262c", "plate_opacity" => 100, "names" => "none"}
    assert_equal %w[time text], [{"times" => "shown"}, {"times" => "none"}].map { |more| Legibility.new(piece(time.merge(more)), on([0, 0, 400, 200])).worst.part }
    theirs = {"plate_by" => "person", "plate_opacity" => 100, "names" => "none", "text_colour" => "#ffffff"}
    worst = ->(plate) { Legibility.new(piece(theirs), on([0, 0, 400, 200]), people: [["#ffffff", plate]]).worst.ratio }
    assert_operator worst["#f0f0f0"], :<, 1.3
    assert_operator worst["#101010"], :>, 15
  end

  def test_an_outline_and_a_shadow_help_where_there_is_no_plate
    bare = {"plate_for" => "none", "names" => "none"}
    ratio = ->(values) { Legibility.new(piece(bare.merge(values)), on([250, 0, 100, 100])).worst.ratio }
    shadow = ratio.call("text_shadow_opacity" => 90, "text_shadow_blur_px" => 6)
    assert_operator shadow, :>, ratio.call({})
    assert_operator ratio.call("text_outline_px" => 2), :>, shadow
  end

  def test_the_least_change_that_is_enough_is_enough_and_no_less_would_be
    before = piece("plate_opacity" => 20, "name_colour" => "one", "one_name_colour" => "#ffffff")
    under = on([0, 0, 400, 200])
    ways = Clearer.new(before, under).ways
    refute_empty ways
    ways.each { |way| assert_predicate Legibility.new(before.merge(way.sets), under), :enough?, way.words }
    least = ways.find { |way| way.sets.key?("plate_opacity") }.sets["plate_opacity"]
    refute_predicate Legibility.new(before.merge("plate_opacity" => least - 1), under), :enough?
    assert_equal ways.map(&:change).sort, ways.map(&:change)
  end

  def test_names_are_readable_over_the_worst_picture_a_plate_lets_through
    [["#10151a", 72], ["#10151a", 60], ["#f4f6f8", 80], ["#000000", 100]].each do |plate, opacity|
      drawn = piece("plate_colour" => plate, "plate_opacity" => opacity, "text_colour" => plate == "#f4f6f8" ? "#10151a" : "#ffffff", "name_colour" => "theirs")
      names = Bavard::Core::Contrast::Names.new(drawn)
      GIVEN.each do |given|
        person = Bavard::Core::Chat::Person.new(1, "ann", "ann", given, [])
        colour = names.colour(Struct.new(:person, :id).new(person, 1), feed: "#5fb8d6")
        legibility = Legibility.new(drawn, on([0, 0, 400, 200]), people: [[colour, nil]])
        assert_operator legibility.worst.ratio.round(1), :>=, 4.4, [plate, opacity, given, colour].inspect
      end
    end
  end

  def test_where_there_was_no_plate_the_least_one_that_is_enough_is_drawn
    before = piece("plate_for" => "none", "text_colour" => "#ffffff", "one_name_colour" => "#ffffff")
    under = on([0, 0, 400, 200])
    way = Clearer.new(before, under).ways.find { |one| one.sets.key?("plate_opacity") }
    assert_equal ["line", way.sets["plate_opacity"] / 100.0], [way.sets["plate_for"], way.change]
    refute_predicate Legibility.new(before.merge(way.sets, "plate_opacity" => way.sets["plate_opacity"] - 1), under), :enough?
    refute way.sets.key?("plate_to_opacity")
    faded = before.merge("plate_for" => "line", "plate_gradient" => "down", "plate_opacity" => 10, "plate_to_opacity" => 5)
    both = Clearer.new(faded, under).ways.find { |one| one.sets.key?("plate_opacity") }.sets
    assert_equal both["plate_opacity"], both["plate_to_opacity"]
  end

  def test_nothing_is_offered_where_it_is_good_already
    assert_empty Clearer.new(piece("plate_opacity" => 100), on([0, 0, 400, 200])).ways
  end

  def test_patches_lie_where_the_picture_covers_the_stage
    assert_equal [[[10, 12, 20], 4], [[250, 240, 230], 4]], on([0, 0, 400, 200]).map { |patch| [patch.rgb, patch.many] }
    # Upright: the picture is cut off at both sides, so that its middle is seen.
    upright = on([0, 0, 100, 200], size: [100, 200])
    assert_equal [[10, 12, 20], [250, 240, 230]], upright.map(&:rgb).uniq
    assert_equal [[-50, 0], [50, 0]], upright.map { |patch| [patch.x, patch.y] }
    # Wide: it is cut off above and below.
    assert_equal [[0, -150], [400, -150]], on([0, 0, 800, 100], size: [800, 100]).map { |patch| [patch.x, patch.y] }.uniq.values_at(0, -1)
    assert_empty on([500, 0, 100, 100])
  end

  def test_what_is_no_grid_is_refused
    ["", "x", [0, 0].pack("nn"), [0, 9].pack("nn"), [4, 2].pack("nn"), [4, 2].pack("nn") + ("x" * 23)].each { |bytes| assert_raises(Bavard::Error) { Patches.read(bytes) } }
  end

  def test_without_a_picture_the_worse_of_black_and_white_counts
    assert_in_delta Legibility.new(piece("text_colour" => "#ffffff", "plate_opacity" => 50, "names" => "none")).worst.ratio,
      Legibility.new(piece("text_colour" => "#ffffff", "plate_opacity" => 50, "names" => "none"), []).worst.ratio, 0.001
  end

  def test_patches_are_counted_where_a_piece_touches_them_and_tell_where_they_lie
    under = on([90, 0, 120, 100])
    assert_equal [[0, 0], [200, 0]], under.map { |patch| [patch.x, patch.y] }
    assert_equal [2, 1], under.map(&:many)
    assert_equal [[100, 100]], under.map { |patch| [patch.width, patch.height] }.uniq
    assert_equal 4, on([0, 0, 400, 100]).sum(&:many)
    assert_equal 8, on([0, 0, 400, 100.1]).sum(&:many)
    assert_equal 8, on([-900, -900, 5000, 5000]).sum(&:many)
  end

  def test_colours_hardly_apart_are_one
    cells = [[8, 16, 24], [15, 23, 31], [16, 16, 24], [8, 24, 24], [8, 16, 32]]
    grid = Patches.read([5, 1].pack("nn") + cells.flatten.pack("C*"))
    assert_equal [2, 1, 1, 1], grid.under([0, 0, 50, 10], on: [50, 10]).map(&:many)
  end

  def test_half_of_the_text_reads_at_least_so_well
    bare = piece("plate_for" => "none", "names" => "none", "text_colour" => "#ffffff")
    dark = Colour.parse("#ffffff").contrast_ratio(Colour.parse("#0a0c14"))
    bright = Colour.parse("#ffffff").contrast_ratio(Colour.parse("#faf0e6"))
    assert_in_delta dark, Legibility.new(bare, on([0, 0, 250, 100])).usual, 0.01
    assert_in_delta bright, Legibility.new(bare, on([150, 0, 250, 100])).usual, 0.01
  end

  def test_large_letters_need_less_and_less_is_poor
    word = ->(colour) { Legibility.new(piece("plate_opacity" => 100, "plate_colour" => "#000000", "names" => "none", "text_colour" => colour)).word }
    assert_equal %w[good fair poor], ["#808080", "#666666", "#505050"].map(&word)
  end
end
