# frozen_string_literal: true

require "json"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/style/piece_style"
require_relative "../../../lib/bavard/core/pieces/pieces"

# Every setting of how a piece looks reaches the page, and reaches it as it always did.
class PieceStyleTest < Minitest::Test
  Core = Bavard::Core
  Stage = Core::Stage
  Pieces = Core::Pieces
  HOUSE = Core::Look::HouseStyle::DEFAULT
  KEPT = File.expand_path("piece_styles.json", __dir__)
  # What decides whether others matter, set so that they do. From the ending of a name to its value.
  MATTER = {"_shadow_opacity" => 60, "_outline_px" => 2, "_border" => 3, "_gradient" => "across", "_opacity" => 50, "_pattern" => "dots", "_held_by" => "tape",
            "_underline" => true, "_underline_form" => "marker", "plate_frame" => "0" * 32, "goal_shape" => "0" * 32, "_tail" => true,
            "badges" => "shown", "avatars" => "shown", "times" => "shown", "marks" => "shown", "faces" => "shown", "names" => "cut", "sign_colour_by" => "one",
            "name_place" => "column", "tilt" => 20, "tilt_sideways" => 10, "highlight_mentions" => true, "highlight_first" => true, "highlight_paid" => true,
            "highlight_moderators" => true, "plate_for" => "text"}.freeze
  # Corners and the sides of an edge are of boxes, depths of outlines.
  SHAPED = MATTER.merge("plate_shape" => "label").freeze
  # Said by Ruby alone, or by what comes on the page: nothing of it is style.
  ELSEWHERE = {"chat" => %w[at_most stay_by stay_ms keep_last reading_speed name_form name_case names separator line_sides own_markup own_css name_colour
    one_name_colour name_contrast person_colours role_colours], "voices" => %w[host_first order shown at_most lately_s],
               "portraits" => %w[least_ms], "alerts" => %w[chime]}.freeze

  def base(kind)
    Pieces.kind(kind::KEY).build("#{kind::KEY}1")
  end

  def mattering(kind, matter = MATTER)
    piece = base(kind)
    kind.properties.each_value do |property|
      ending, value = matter.find { |name, _| property.name == name || property.name.end_with?(name) }
      piece[property.name] = property.read(value) if ending && fits?(property, value)
    end
    piece
  end

  def fits?(property, value)
    property.read(value)
    true
  rescue Bavard::Error
    false
  end

  def other(property, now)
    field = property.field
    case field[:kind]
    when :number then [field[:min], field[:max], field[:max] - 1].find { |value| value != now }
    when :choice then (field[:choices] - [now]).first
    when :switch then !now
    when :colour then now == "#13579b" ? "#2468ac" : "#13579b"
    when :face, :part_face then "installed:Reed Sans"
    when :order then now.reverse
    end
  end

  def style(piece) = Core::Style::PieceStyle.of(piece, HOUSE)

  # Each alone, from a piece in which it may matter.
  def without_effect(kind) = [MATTER, SHAPED].map { |matter| without_effect_on(mattering(kind, matter), kind) }.reduce(:&)

  def without_effect_on(piece, kind)
    before = style(piece)
    kind::LOOK.filter_map do |property|
      value = other(property, piece[property.name])
      property.name unless value.nil? || (kind::KEY == "flurry") || style(piece.merge(property.name => value)) != before
    end
  end

  def test_no_setting_of_a_look_is_without_effect
    kinds = Pieces::ALL.select { |kind| kind.const_defined?(:LOOK) }
    found = kinds.to_h { |kind| [kind::KEY, without_effect(kind) - ELSEWHERE.fetch(kind::KEY, [])] }
    assert_empty(found.reject { |_, names| names.empty? })
  end

  def styles
    Pieces::ALL.select { |kind| kind.const_defined?(:LOOK) }.to_h do |kind|
      [kind::KEY, {"plain" => style(base(kind)), "set" => style(mattering(kind)), "shaped" => style(mattering(kind, SHAPED))}]
    end
  end

  # Whoever changes how something is drawn sees here what else that changes. RENEW=1 writes it anew.
  def test_what_pages_are_told_is_what_they_always_were_told
    told = JSON.parse(JSON.generate(styles))
    File.write(KEPT, "#{JSON.pretty_generate(told)}\n") if ENV["RENEW"]
    kept = JSON.parse(File.read(KEPT))
    assert_equal kept.keys, told.keys
    kept.each { |kind, forms| forms.each { |form, style| assert_equal style, told[kind][form], "#{kind}, #{form}" } }
  end
end
