# frozen_string_literal: true

require_relative "../../support/still_show"

# A cue says that emotes fly. Where none do, somebody says why.
class FlurryFindingsTest < StillShowTest
  def begin_with(*pieces, flurry_emotes: "", emotes: [], on: true)
    built = pieces.each_with_index.map { |(kind, values), at| Core::Pieces.kind(kind).build("#{kind}#{at + 1}", values || {}) }
    @record = make_show(document: Core::Stage::Document.empty.merge("pieces" => built), on_air: true)
    begin_show
    put_on_shelf(emotes)
    cues = @show.cues.document["cues"].map do |cue|
      cue["id"] == "cue_tip" ? cue.merge("flurry_count" => 30, "flurry_emotes" => flurry_emotes, "on" => on) : cue
    end
    @show.use_cues(@show.cues.document.merge("cues" => cues))
  end

  def put_on_shelf(codes)
    return if codes.empty?

    worn = codes.each_with_index.map { |code, at| Core::Dress::Emote.new(at + 1, code, "p#{at}", false, false, false, 1.0) }
    shelves = [Core::Dress::Shelf.new(1, "Ours", true, [], worn, nil)]
    @show.dress(Bavard::Live::Wardrobe::Contents.new(shelves, [], Core::Dress::EmoteIndex.new(shelves, []), {}))
  end

  def whys = @show.cue_findings.filter_map { |id, why| why if id == "cue_tip" }

  def flown = frames("air:#{@stage.id}").flat_map { |frame| frame.dig("fly", "flurry1") || [] }

  def tip
    take(:event, Core::Happened.new(:tip, said("ann", "", paid: Core::Amount.money(500, "EUR")), nil))
    advance
    flown.size
  end

  def test_without_a_flurry_on_air_the_sheet_says_so
    begin_with(["alerts"], emotes: [":wren:"])
    assert_equal [Bavard::Live::FlurryFindings::NO_PIECE], whys
  end

  def test_a_flurry_that_takes_none_of_cues_is_as_good_as_none
    begin_with(["flurry", {"from_cues" => false}], ["alerts"], emotes: [":wren:"])
    assert_equal [Bavard::Live::FlurryFindings::NO_PIECE], whys
  end

  def test_a_new_host_without_emotes_is_told_so
    begin_with(["flurry"], ["alerts"])
    assert_equal [Bavard::Live::FlurryFindings::NO_EMOTES], whys
    assert_equal 0, tip
  end

  def test_emotes_that_no_shelf_has_are_named
    begin_with(["flurry"], ["alerts"], flurry_emotes: ":wren: :roc:", emotes: [":wren:"])
    assert_equal [":roc: cannot fly: no shelf has it"], whys
  end

  def test_where_all_is_there_they_fly_and_nothing_is_said
    begin_with(["flurry"], ["alerts"], emotes: [":wren:"])
    assert_equal [[], 30], [whys, tip]
  end

  def helps = @show.cue_findings.filter_map { |id, _, helps| helps if id == "cue_tip" }

  def test_what_a_platform_has_sent_flies_from_then_on_and_as_itself
    begin_with(["flurry"], ["alerts"])
    assert_equal %w[emotes], helps
    at_hand(%w[otter])
    assert_equal [[], 30, [":otter:"]], [whys, tip, flown.map { |card| card["e"].first }.uniq]
  end

  def test_a_platforms_emote_may_be_named_and_flies_no_more_once_its_shelf_is_off
    begin_with(["flurry"], ["alerts"], flurry_emotes: ":otter:")
    at_hand(%w[otter])
    assert_equal [[], 30], [whys, tip]
    at_hand(%w[otter], on: false)
    assert_equal [":otter: cannot fly: no shelf has it"], whys
  end

  def test_more_than_may_be_on_the_way_at_once_is_said_beforehand
    begin_with(["flurry", {"at_once" => 12}], ["flurry", {"at_once" => 20}], ["alerts"], emotes: [":wren:"])
    assert_equal [["20 of 30 fly: more are not on the way at once"], %w[ceiling]], [whys, helps]
  end

  # Emotes that a platform has sent, on its own shelf.
  def at_hand(names, on: true)
    emotes = names.each_with_index.map { |name, at| Core::Dress::Emote.new(at + 1, ":#{name}:", "p#{at}", false, false, false, 1.0) }
    shelves = [Core::Dress::Shelf.new(1, "Theirs", on, [], emotes, @lane.id)]
    @show.dress(Bavard::Live::Wardrobe::Contents.new(shelves, [], Core::Dress::EmoteIndex.new(shelves, []), {}))
  end

  def test_a_cue_that_rests_promises_nothing
    begin_with(["alerts"], on: false)
    assert_empty whys
  end
end
