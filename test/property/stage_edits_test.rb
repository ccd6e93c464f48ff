# frozen_string_literal: true

require "prop_check"
require_relative "../support/plain"
require_relative "../../lib/bavard/core/pieces/look_document"
require_relative "../../lib/bavard/core/style/piece_style"
require_relative "../../lib/bavard/core/stage/difference"
require_relative "../../lib/bavard/core/stage/edit"
require_relative "../../lib/bavard/core/stage/starts"
require_relative "../../lib/bavard/store/stages"

# Whatever is edited, in whatever order: undoing leads back, and every document on the way fits its format and can be drawn.
class StageEditsTest < Minitest::Test
  Document = Bavard::Core::Stage::Document
  Edit = Bavard::Core::Stage::Edit
  Pieces = Bavard::Core::Pieces
  G = PropCheck::Generators
  STEPS = 500

  # An edit made of numbers alone, so that what fails can be made smaller: what to do, to which piece, with what.
  def edit(document, what, which, value)
    piece = document["pieces"][which % [document["pieces"].size, 1].max]
    return {"do" => "add", "kind" => Pieces::KINDS.keys[value % Pieces::KINDS.size], "values" => {"x" => value}} if piece.nil?

    ids = document["pieces"].first((value % 4) + 1).map { |one| one["id"] }
    [
      -> { {"do" => "add", "kind" => Pieces::KINDS.keys[value % Pieces::KINDS.size], "values" => {"y" => value}} },
      -> { {"do" => "set", "piece" => piece["id"], "values" => some_value(piece, value)} },
      -> { {"do" => "set", "piece" => piece["id"], "values" => some_value(piece, value + 1)} },
      -> { {"do" => "order", "piece" => piece["id"], "at" => value % 9} },
      -> { {"do" => "remove", "piece" => piece["id"]} },
      -> { {"do" => "arrange", "pieces" => ids, "how" => %w[left centre bottom across down][value % 5]} },
      -> { {"do" => "resize", "values" => {"width" => 100 + value}, "how" => %w[scale keep][value % 2]} },
      -> { {"do" => "duplicate", "pieces" => ids} },
      -> { {"do" => "group", "pieces" => ids} },
      -> { {"do" => "house", "sort" => "colours", "key" => "c#{value % 3}", "value" => {"name" => "C", "value" => format("#%06x", value * 99)}} },
      -> { {"do" => "look", "piece" => piece["id"], "set" => piece["kind"] == "chat" ? looks[value % looks.size]["set"] : {}} },
      -> { {"do" => "fit", "piece" => piece["id"], "to" => document["pieces"].last["id"], "how" => %w[inside beside around tucked][value % 4]} }
    ][what % 12].call
  end

  def looks = Bavard::Core::Pieces::LookDocument.shipped.values

  # One of the piece's properties, at some value it can have.
  def some_value(piece, value)
    property = Pieces.kind(piece["kind"]).properties.values.then { |all| all[value % all.size] }
    field = property.field
    given = case field[:kind]
            when :number then (field[:min] + (value % (field[:max] - field[:min] + 1))).clamp(field[:min], field[:max])
            when :choice then field[:choices][value % field[:choices].size]
            when :switch then value.odd?
            when :colour then value.odd? ? "house:accent" : format("#%06x", value * 77)
            when :text then "words #{value}"
            else property.default
    end
    {property.name => given}
  end

  # Applies what can be applied; gives each document on the way and what takes it back.
  def walk(document, steps)
    steps.each_with_object([[document, nil]]) do |(what, which, value), path|
      done = Edit.apply(path.last.first, edit(path.last.first, what, which, value))
      path << [done.document, done.undo]
    rescue Bavard::Error
      next # a piece cannot fit to itself, a stage can be full: refused, and nothing changed
    end
  end

  def back(path)
    path.drop(1).reverse.reduce(path.last.first) { |document, (_, undo)| Edit.apply(document, undo).document }
  end

  def steps = G.array(G.tuple(G.nonnegative_integer, G.nonnegative_integer, G.choose(0..7000)), min: 1, max: 40)

  def test_any_edits_undone_in_turn_come_back_to_the_same_document
    start = Bavard::Core::Stage::Starts.document("camera", width: 1920, height: 1080)
    PropCheck.forall(steps) { |given| assert_equal start, back(walk(start, given)) }
  end

  def test_five_hundred_steps_back_are_exact
    random = Random.new(20_261_125)
    start = Bavard::Core::Stage::Starts.document("camera", width: 1920, height: 1080)
    path = walk(start, Array.new(STEPS * 3) { [random.rand(1..12), random.rand(0..50), random.rand(0..7000)] }).first(STEPS + 1)
    assert_equal STEPS + 1, path.size
    assert_equal start, back(path)
  end

  def test_every_document_the_editor_can_make_fits_its_format_and_can_be_drawn
    start = Bavard::Core::Stage::Starts.document("side", width: 1280, height: 720)
    PropCheck.forall(steps).with_config(n_runs: 30) do |given|
      document = walk(start, given).last.first
      assert_same document, Bavard::Store::Stages.checked(document)
      document["pieces"].each { |piece| refute_nil Bavard::Core::Style::PieceStyle.of(piece, document["house"])[:place] }
      assert_empty Bavard::Core::Stage::Difference.between(document, Document.complete(JSON.parse(JSON.generate(document))))
    end
  end

  def test_the_undo_of_one_gesture_is_one_edit_and_exact
    start = Bavard::Core::Stage::Starts.document("camera", width: 1920, height: 1080)
    both = start["pieces"].map { |piece| piece["id"] }
    moves = (1..60).map { |x| {"do" => "many", "edits" => both.map { |id| {"do" => "set", "piece" => id, "values" => {"x" => x, "y" => -x}} }} }
    moves << {"do" => "set", "piece" => "chat1", "values" => {"width" => 222}}
    document = start
    undo = moves.reduce(nil) do |joined, move|
      done = Edit.apply(document, move)
      document = done.document
      joined ? Edit.joined(joined, done.undo) : done.undo
    end
    assert_equal start, Edit.apply(document, undo).document
    assert_operator JSON.generate(undo).size, :<, 600
  end
end
