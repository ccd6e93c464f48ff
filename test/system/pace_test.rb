# frozen_string_literal: true

require_relative "../support/prepared"
require_relative "../../lib/bavard/core/chat/line"
require_relative "../../lib/bavard/core/reading/chat_measure"
require_relative "../../lib/bavard/live/pictures/faces_unpacked"

# What is measured in Ruby against what Chromium lays out, in every shipped face.
class PaceTest < PreparedTest
  TEXTS = ["morning all", "is that a reed warbler or a marsh warbler?? the song had so much mimicry in it",
    "oldest one here came back for eleven summers", "ring number looks like K41 207", "ok",
    "forty-two nest boxes already, well done everyone, and thank you for the long evenings on the east bank",
    "I could listen to this marsh all day", "wing length? I had 67 last week and 68 the week before that, on the same bird"].freeze
  FACES = Bavard::Core::Palette::Faces::SHIPPED.keys
  LOOKS = [{}, {"name_place" => "above", "plate_width" => "piece", "plate_border" => 20, "plate_border_side" => "start", "text_weight" => 700}].freeze
  WITHIN = 0.05

  def test_rows_and_widths_are_within_five_percent_of_what_chromium_lays_out
    pieces = FACES.flat_map { |face| LOOKS.map { |look| {"text_stretch" => look.empty? ? 100 : 80, "name_stretch" => look.empty? ? 100 : 80, "text_face" => face, "text_size_px" => 26, "width" => 460, "height" => 1400, "at_most" => 50, **look} } }
      .each_with_index.map { |piece, index| PIECE.merge(piece, "x" => (index % 8) * 470, "y" => (index / 8) * 1410) }
    prepare(feed: feed_address, pieces:, width: 3840, height: 2840)
    until_live
    open_screen(link, width: 3840, height: 2840)
    TEXTS.each { |text| server.say("kestrel_ann", text) }
    on_screen { assert_selector ".line", count: TEXTS.size * pieces.size }
    on_screen { execute_script("document.fonts.ready.then(() => document.body.dataset.faces = 'there')") }
    on_screen { assert_selector "body[data-faces]" }
    pieces.each_with_index { |piece, index| compare(piece, on_screen { laid_out("chat#{index + 1}") }) }
  end

  private

  def laid_out(id)
    evaluate_script(<<~JS)
      [...document.querySelectorAll("[data-piece=#{id}] .line")].reverse().map((line) => {
        const range = document.createRange();
        range.selectNodeContents(line.querySelector(".text"));
        const name = document.createRange();
        name.selectNodeContents(line.querySelector(".name"));
        return [line.querySelector(".text").textContent, line.offsetHeight, range.getClientRects().length, range.getBoundingClientRect().width, name.getBoundingClientRect().width];
      })
    JS
  end

  def compare(piece, lines)
    drawn = Bavard::Core::Stage::Document.drawn(Bavard::Core::Pieces::ChatPiece.build("chat1", piece), Bavard::Core::Stage::Document.empty["house"])
    measure = Bavard::Core::Reading::ChatMeasure.new(drawn, type)
    told = [piece["text_face"], piece["name_place"]].compact.join(", ")
    heights = lines.map { |text, *| measure.height(line(text)) }
    assert_in_delta 1, heights.sum / lines.sum { |line| line[1] }, WITHIN, "#{told}: height of all lines"
    lines.select { |line| line[2] == 1 }.each do |text, _, _, width, name|
      assert_in_delta 1, measure.width("text", text) / width, WITHIN, "#{told}: width of “#{text}”"
      assert_in_delta 1, measure.width("name", "kestrel_ann") / name, WITHIN, "#{told}: width of the name"
    end
  end

  def type = @type ||= Bavard::Live::FacesUnpacked.type_case(File.join(Suite::Memory.root, "faces"))

  def line(text)
    said = Bavard::Core::Said.new("kestrel_ann", "kestrel_ann", nil, [], text, false, false)
    Bavard::Core::Chat::Line.from(Bavard::Core::Intake.new(:line, 1, nil, nil, 0, said), id: 1)
  end
end
