# frozen_string_literal: true

require "digest/sha1"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/core/intake"
require_relative "../../../lib/bavard/feeds/xmpp/faces"

# Pictures of those who talk in a room: asked for once, and nothing but what their hash says.
class XmppFacesTest < Minitest::Test
  Element = Bavard::Feeds::Xmpp::Element
  Faces = Bavard::Feeds::Xmpp::Faces
  ROOM = "hide@rooms.reedmere.example"
  BYTES = "a picture".b
  SHA1 = Digest::SHA1.hexdigest(BYTES)

  def setup
    @sent = []
    @came = []
    @faces = Faces.new(ROOM, send: @sent.method(:<<), came: @came.method(:<<))
  end

  def presence(photo) = Element.new("presence", nil, {}, [Element.new("x", Faces::UPDATE, {}, [photo && Element.new("photo", Faces::UPDATE, {}, [photo])].compact)])

  def answer(id, bytes, from: "#{ROOM}/ann", type: "result")
    photo = Element.new("PHOTO", Faces::CARD, {}, [Element.new("TYPE", Faces::CARD, {}, ["image/png"]), Element.new("BINVAL", Faces::CARD, {}, [[bytes].pack("m")])])
    Element.new("iq", nil, {"id" => id, "from" => from, "type" => type}, [Element.new("vCard", Faces::CARD, {}, [photo])])
  end

  def asked = @sent.last[/id='(\h+)'/, 1]

  def test_whoever_speaks_is_asked_for_their_picture_and_it_counts_where_it_is_what_its_hash_says
    @faces.noted("ann", presence(" #{SHA1.upcase}\n"))
    assert_empty @sent, "nobody has said anything yet"
    assert_equal "cid:sha1+#{SHA1}@bob.xmpp.org", @faces.of("ann", 0)
    @faces.of("ann", 59_000)
    assert_equal ["<iq type='get' id='#{asked}' to='#{ROOM}/ann'><vCard xmlns='vcard-temp'/></iq>"], @sent
    @faces.answered(answer(asked, BYTES), 1000)
    assert_equal [[Faces.address(SHA1), BYTES]], @came.map(&:to_a)
    @faces.answered(answer(asked, BYTES), 1000)
    @faces.of("ann", 200_000)
    assert_equal [1, 1], [@came.size, @sent.size]
  end

  def test_what_is_something_else_counts_for_nothing
    @faces.noted("ann", presence(SHA1))
    [[["another"], {}], [[BYTES], {from: "#{ROOM}/eve"}], [[BYTES], {type: "error"}], [["x" * (Faces::LARGEST_BYTES + 1)], {}], [[""], {}]].each_with_index do |(given, more), at|
      @faces.of("ann", at * 60_000)
      @faces.answered(answer(asked, *given, **more), at * 60_000)
    end
    @faces.of("ann", 600_000)
    @faces.answered(answer(asked, BYTES), 600_000 + Faces::WITHIN_MS + 1)
    @faces.answered(answer("guessed", BYTES), 0)
    @faces.answered(Element.new("iq", nil, {"id" => asked}), 0)
    assert_equal [[], 6], [@came, @sent.size]
  end

  def test_nobody_is_asked_who_says_that_they_have_none_and_only_so_many_at_once
    [nil, "", "x", SHA1[1..], "#{SHA1}0"].each_with_index { |photo, at| @faces.noted("n#{at}", presence(photo)) }
    assert_equal [nil] * 6, %w[n0 n1 n2 n3 n4 stranger].map { |nick| @faces.of(nick, 0) }
    @faces.noted("bo", presence(SHA1))
    @faces.renamed("bo", "bob")
    assert_equal [nil, Faces.address(SHA1)], [@faces.of("bo", 0), @faces.of("bob", 0)]
    @faces.renamed("bob", "bo")
    @faces.renamed("bo", "bob")
    @faces.of("bob", 1)
    assert_equal 1, @sent.size, "another name is no way to be asked for again"
    @faces.left("bob")
    assert_nil @faces.of("bob", 0)
    60.times { |at| @faces.tap { |faces| faces.noted("m#{at}", presence(Digest::SHA1.hexdigest(at.to_s))) }.of("m#{at}", 0) }
    assert_equal Faces::MOST_WAITING, @sent.size
    @faces.of("m59", Faces::WITHIN_MS + 1)
    assert_equal Faces::MOST_WAITING + 1, @sent.size
  end
end
