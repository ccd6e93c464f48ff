# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/stage/document_reading"
require_relative "../../../lib/bavard/core/stage/edit"

# What dresses a whole stage, and leaves alone what is not dress.
class OutfitTest < Minitest::Test
  include Bavard::Core

  Outfit = Bavard::Core::Pieces::Outfit
  # What pieces say, where they stand and how large they are.
  STAYS = %w[x y width height text_size_px text_align title words kinds counted figures steps goal_shape at_most names faces].freeze
  UNDRESSED = %w[flurry picture video space].freeze

  def whole
    Pieces::KINDS.keys.reduce(Stage::Document.empty) { |document, kind| Stage::Edit.apply(document, {"do" => "place", "kind" => kind}).document }
  end

  def test_there_are_as_many_as_looks_of_chat_and_chat_wears_its_own
    assert_equal Pieces::LookDocument.shipped.keys, Outfit.shipped.keys
    chat = Pieces::ChatPiece.build("chat1")
    Outfit.shipped.each { |key, outfit| assert_equal Pieces::LookDocument.values(chat, Pieces::LookDocument.shipped[key]["set"]), outfit.values(chat) }
  end

  def test_every_kind_can_wear_each_of_them_and_what_is_no_dress_stays
    Outfit.shipped.each_value do |outfit|
      Pieces::KINDS.each_value do |kind|
        piece = kind.build("#{kind::KEY}1")
        values = outfit.values(piece)
        kind.read(values)
        assert_equal UNDRESSED.include?(kind::KEY), values.empty?, kind::KEY
        assert_empty values.keys & STAYS, kind::KEY unless kind == Pieces::ChatPiece
      end
    end
  end

  def test_the_shows_colours_and_faces_become_its_own_and_what_the_host_named_besides_stays
    named = {"do" => "house", "sort" => "colours", "key" => "moss", "value" => {"name" => "Moss", "value" => "#446622"}}
    renamed = {"do" => "house", "sort" => "colours", "key" => "accent", "value" => {"name" => "Gold", "value" => "#ffee00"}}
    before = [named, renamed].reduce(whole) { |document, edit| Stage::Edit.apply(document, edit).document }
    done = Stage::Edit.apply(before, {"do" => "outfit", "outfit" => "field_notes"})
    house = done.document["house"]
    assert_equal [{"name" => "Gold", "value" => "#9c2f26"}, {"name" => "Moss", "value" => "#446622"}], house["colours"].values_at("accent", "moss")
    assert_equal ["Courier Prime", "key"], [house["faces"]["text"]["value"], done.document["pieces"].find { |piece| piece["kind"] == "alerts" }["chime"]]
    assert_equal before, Stage::Edit.apply(done.document, done.undo).document
    one = Stage::Edit.apply(before, {"do" => "outfit", "outfit" => "field_notes", "pieces" => ["goal1"]}).document
    assert_equal before["house"], one["house"]
  end

  def test_every_outfit_names_all_that_is_always_there
    wanted = Look::HouseStyle::DEFAULT.transform_values(&:keys)
    Outfit.shipped.each_value do |outfit|
      assert_equal wanted, outfit.house.transform_values(&:keys)
      outfit.house.each { |sort, values| values.each_value { |value| assert_equal value, Look::HouseStyle::SORTS[sort].read(value) } }
    end
    chimes = Outfit.shipped.each_value.map { |outfit| outfit.look(Pieces::AlertsPiece)["chime"] }
    assert_equal [chimes.size, []], [chimes.uniq.size, chimes - Pieces::AlertsPiece::CHIMES]
  end

  def test_a_goal_goes_on_filling_the_hosts_own_shape
    own, plain = %w[shape line].map { |drawn| Pieces::GoalPiece.build("goal1", "drawn" => drawn) }
    outfit = Outfit.find("ring_labels")
    assert_equal [nil, "steps"], [own, plain].map { |goal| outfit.values(goal)["drawn"] }
  end

  # Whatever was worn before: the same is worn afterwards.
  def test_nothing_is_left_of_what_was_worn_before
    Outfit.shipped.keys.permutation(2).each do |before, after|
      Pieces::KINDS.each_value do |kind|
        fresh = kind.build("#{kind::KEY}1")
        worn = [before, after].reduce(fresh) { |piece, key| piece.merge(kind.placed(piece, kind.read(Outfit.find(key).values(piece)))) }
        direct = fresh.merge(kind.placed(fresh, kind.read(Outfit.find(after).values(fresh))))
        assert_equal direct, worn, "#{kind::KEY}: #{before}, then #{after}"
      end
    end
  end

  def test_a_stage_is_dressed_in_one_step_and_undressed_in_one
    before = whole
    done = Stage::Edit.apply(before, {"do" => "outfit", "outfit" => "ring_labels"})
    assert_equal "ring_labels", done.document["outfit"]
    faces = done.document["pieces"].filter_map { |piece| piece["text_face"] }.uniq
    assert_equal ["Fraunces"], faces
    assert_equal before, Stage::Edit.apply(done.document, done.undo).document
  end

  def test_what_comes_later_wears_it_also_in_a_box_of_its_own
    dressed = Stage::Edit.apply(Stage::Document.empty, {"do" => "outfit", "outfit" => "balloons"}).document
    box = {"x" => 7, "y" => 8, "width" => 300, "height" => 90}
    later = Stage::Edit.apply(dressed, {"do" => "place", "kind" => "goal", "values" => box}).document["pieces"].last
    assert_equal [box, "Playpen Sans"], [later.slice(*box.keys), later["text_face"]]
    assert_raises(Bavard::Error) { Stage::Edit.apply(dressed, {"do" => "place", "kind" => "goal", "values" => [1]}) }
  end

  def test_one_piece_alone_can_be_dressed_and_only_in_what_there_is
    document = whole
    done = Stage::Edit.apply(document, {"do" => "outfit", "outfit" => "balloons", "pieces" => ["goal1"]}).document
    changed = done["pieces"].zip(document["pieces"]).filter_map { |now, then_| now["id"] unless now == then_ }
    assert_equal [["goal1"], ""], [changed, done["outfit"]]
    [["tuxedo", nil], [nil, nil], ["quiet", ["nobody1"]], ["quiet", []], ["quiet", "goal1"]].each do |outfit, pieces|
      edit = {"do" => "outfit", "outfit" => outfit}
      assert_raises(Bavard::Error, outfit.inspect) { Stage::Edit.apply(document, pieces ? edit.merge("pieces" => pieces) : edit) }
    end
    assert_raises(Bavard::Error) { Stage::Edit.apply(document, {"do" => "wear", "outfit" => "tuxedo"}) }
  end

  def test_a_document_of_earlier_or_of_another_bavard_wears_none
    [nil, "tuxedo", 7].each { |worn| assert_equal "", Stage::Document.complete(Stage::Document.empty.merge("outfit" => worn).compact)["outfit"] }
    assert_equal "tall", Stage::Document.complete(Stage::Document.empty.merge("outfit" => "tall"))["outfit"]
    given = Stage::Document.empty.merge("outfit" => "tall")
    assert_equal ["tall", "", ""], [given, given.merge("outfit" => {}), given.except("outfit")].map { |one| Stage::DocumentReading.read(one)["outfit"] }
  end
end
