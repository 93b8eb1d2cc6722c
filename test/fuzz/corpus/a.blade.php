@extends('layout') @section('body')<h1>{{ __('home.title') }}</h1>@if($n == 1) One boat @else {{ $n }} boats @endif
{{-- note --}} {!! $html !!} @lang('x.y') <p title="{{ $a['b'] }}">@foreach($x as $y) Deck {{ $y }} @endforeach</p>@endsection
